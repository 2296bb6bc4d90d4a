const style = `<style>
*{box-sizing:border-box}
body{margin:0;min-height:100vh;display:grid;place-items:center;background:#F7F1E5;color:#2A2333;font:17px/1.4 system-ui,sans-serif}
form{background:#FFFDF8;border:1px solid #E2D7C1;border-radius:12px;padding:26px 24px;width:min(340px,88vw);display:grid;gap:14px}
h1{font:600 26px Georgia,serif;margin:0;color:#3D1F4A}
h1 i{font-style:normal;color:#A35A0C}
label{display:grid;gap:5px;color:#5F566B;font-size:15px}
input{font:inherit;padding:0 12px;border:1px solid #CBBFAE;border-radius:7px;height:48px}
button{font:600 17px system-ui,sans-serif;background:#5A2A6B;color:#FDF6E9;border:0;border-radius:7px;min-height:52px}
p{margin:0}
.problem{color:#B3243B;font-weight:600}
:focus-visible{outline:2px solid #5A2A6B;outline-offset:2px}
@media (prefers-color-scheme:dark){
body{background:#17121C;color:#F3ECE0}
form{background:#201A27;border-color:#3A3145}
h1{color:#F3ECE0}
h1 i{color:#F0B35A}
label{color:#B9AEC2}
input{background:#17121C;color:#F3ECE0;border-color:#55495F}
.problem{color:#F58C9B}
}
</style>`

const heading = '<h1>Jolly <i>Gram</i></h1>'

const page = (head: string, body: string) => `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">
${head}
${style}</head><body>
${body}
</body></html>`

/** The page a phone sees before it has signed in: no script, nothing from anywhere else. */
export function signInPage(sentence: string, then = '/'): string {
  return page(
    '<title>Sign in · Jolly Gram</title>',
    `<form method="post" action="/sign-in">
<input type="hidden" name="then" value="${escaped(then)}">
${heading}
<p>This bench is shared on the network. Its passphrase opens it.</p>
${sentence ? `<p class="problem" role="alert">${sentence}</p>` : ''}
<label>Passphrase<input type="password" name="passphrase" autocomplete="current-password" autofocus required></label>
<button type="submit">Sign in</button>
</form>`,
  )
}

const escaped = (text: string) => text.replace(/[&<>"']/g, character => `&#${character.charCodeAt(0)};`)

/** A place of this application to go on to, from what a request says; the Shelf for anything else. */
export function whereTo(path: string | null): string {
  return path !== null &&
    path.length < 500 &&
    /^\/(?![/\\])[\w\-./?=&%~:,+@!]*$/.test(path) &&
    !path.startsWith('/api/') &&
    !path.startsWith('/sign-in')
    ? path
    : '/'
}

export const signInPolicy = `default-src 'none'; style-src 'unsafe-inline'; form-action 'self'; frame-ancestors 'none'; base-uri 'none'`

/** What every page says while the data cannot be opened or written. It asks again by itself. */
export function troublePage(sentence: string): string {
  return page(
    '<meta http-equiv="refresh" content="3"><title>Not just now · Jolly Gram</title>',
    `<form>
${heading}
<p class="problem" role="alert">${escaped(sentence)}</p>
<p>This page looks again every three seconds and goes on by itself.</p>
</form>`,
  )
}
