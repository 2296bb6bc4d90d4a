<template><h1>Empty</h1></template>
