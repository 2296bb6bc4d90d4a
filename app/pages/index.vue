<template><p>hi</p></template>
