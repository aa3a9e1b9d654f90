// Tries rows of OWASP ASVS 4.0.3 against a running service, as whoever would break in:
//   NAILCROW_PASSWORD=… node tools/check-asvs.mjs http://127.0.0.1:7420 admin
// It lets somebody in to try things with, and shuts them out again at the end; what it did stands in the security log.
import { createHmac, randomBytes } from 'node:crypto'
import { connect } from 'node:tls'

const [address, admin] = process.argv.slice(2)
const adminsPassword = process.env.NAILCROW_PASSWORD
if (!address || !admin || !adminsPassword) {
  console.error('Say where and who: NAILCROW_PASSWORD=… node tools/check-asvs.mjs http://127.0.0.1:7420 admin')
  process.exit(2)
}
const base = new URL(address)
const tls = base.protocol === 'https:'
const letters = 'abcdefghjkmnpqrstuxz'
const made = `asvs-${[...randomBytes(8)].map(b => letters[b % letters.length]).join('')}`
const phrase = 'seven grey kettles boil'

async function ask(method, path, { body, token, headers = {} } = {}) {
  const answer = await fetch(new URL(path, base), {
    method,
    redirect: 'manual',
    headers: { ...(body === undefined ? {} : { 'content-type': 'application/json' }), ...(token ? { authorization: `Bearer ${token}` } : {}), ...headers },
    body: body === undefined ? undefined : typeof body === 'string' ? body : JSON.stringify(body),
  })
  const text = await answer.text()
  let json = null
  try {
    json = JSON.parse(text)
  } catch {
    // not every answer is JSON
  }
  return { status: answer.status, headers: answer.headers, text, json }
}
const signIn = (name, password, more = {}) => ask('POST', '/api/sign-in', { body: { name, password, ...more } })
const is = (found, expected, of) => {
  if (found !== expected) throw new Error(`${of}: ${expected} was expected, ${found} came`)
}
const holds = (so, says) => {
  if (!so) throw new Error(says)
}

// Six digits of RFC 6238, written from the standard.
function oneTimeCode(key, at = Date.now()) {
  const bits = [...key].map(c => 'ABCDEFGHIJKLMNOPQRSTUVWXYZ234567'.indexOf(c).toString(2).padStart(5, '0')).join('')
  const counter = Buffer.alloc(8)
  counter.writeBigUInt64BE(BigInt(Math.floor(at / 30_000)))
  const mac = createHmac('sha1', Buffer.from((bits.match(/.{8}/g) ?? []).map(byte => Number.parseInt(byte, 2)))).update(counter).digest()
  return ((mac.readUInt32BE(mac[19] & 15) & 0x7fffffff) % 1_000_000).toString().padStart(6, '0')
}

const at = {} // what one row leaves for the next
const letIn = (name, password) =>
  ask('POST', '/api/people', { token: at.admin, body: { name, fullName: 'Tried From Outside', password, roles: ['engineer'], mail: null } })

const rows = [
  ['2.5.4', 'no accounts of the maker’s own', async () => {
    for (const [name, password] of [['admin', 'admin'], ['root', 'root'], ['administrator', 'password'], ['nailcrow', 'nailcrow']])
      is((await signIn(name, password)).status, 401, `${name} with ${password}`)
  }],
  ['2.1.1', 'a password of 11 characters is none', async () => is((await letIn(made, 'kettle-grey')).status, 422, 'eleven characters')],
  ['2.1.2', 'nor is one of 129', async () => is((await letIn(made, 'kettle '.repeat(20).slice(0, 129))).status, 422, '129 characters')],
  ['2.1.7', 'nor one that is commonly used', async () => is((await letIn(made, 'password12345')).status, 422, 'a common one')],
  ['2.3.1', 'a first password is random and has to be changed', async () => {
    const added = await letIn(made, null)
    is(added.status, 200, 'letting somebody in')
    at.first = added.json.firstPassword
    holds(at.first.length >= 20, 'it is short')
    at.token = (await signIn(made, at.first)).json.accessToken
    is((await ask('GET', '/api/tickets', { token: at.token })).status, 403, 'tickets before a password of their own')
  }],
  ['2.1.9', 'no rules of letters and signs', async () => {
    is((await ask('PUT', '/api/me/password', { token: at.token, body: { now: at.first, next: phrase } })).status, 200, phrase)
    is((await ask('GET', '/api/tickets', { token: at.token })).status, 200, 'tickets after')
  }],
  ['2.1.6', 'another one takes the one one has', async () =>
    is((await ask('PUT', '/api/me/password', { token: at.token, body: { now: 'not it at all', next: `${phrase} over` } })).status, 422, 'with a wrong one')],
  ['3.2.1', 'a new session with each sign-in', async () => {
    at.second = (await signIn(made, phrase)).json.accessToken
    holds(at.second && at.second !== at.token, 'the token is the same')
  }],
  ['3.3.1', 'signing out ends it', async () => {
    await ask('POST', '/api/sign-out', { token: at.second })
    is((await ask('GET', '/api/me', { token: at.second })).status, 401, 'its token afterwards')
  }],
  ['3.3.3', 'another password ends the other sign-ins', async () => {
    const other = (await signIn(made, phrase)).json.accessToken
    is((await ask('PUT', '/api/me/password', { token: at.token, body: { now: phrase, next: `${phrase} over` } })).status, 200, 'the change')
    at.password = `${phrase} over`
    is((await ask('GET', '/api/me', { token: other })).status, 401, 'the other one')
    is((await ask('GET', '/api/me', { token: at.token })).status, 200, 'the one it was changed in')
  }],
  ['3.4.1', tls ? 'the cookie is Secure, HttpOnly, SameSite=Strict and __Host-' : 'the cookie is HttpOnly and SameSite=Strict', async () => {
    const cookie = (await ask('POST', '/api/sign-in/console', { body: { name: made, password: at.password } })).headers.get('set-cookie') ?? ''
    for (const flag of ['httponly', 'samesite=strict', ...(tls ? ['secure'] : [])]) holds(cookie.toLowerCase().includes(flag), `${flag} is missing`)
    holds(!tls || cookie.startsWith('__Host-'), 'its name does not begin with __Host-')
    at.cookie = cookie.split(';')[0]
  }],
  ['4.2.2', 'pages of other sites write nothing with it', async () => {
    for (const headers of [{ origin: 'https://elsewhere.example' }, { origin: 'null' }, { 'sec-fetch-site': 'cross-site' }])
      is((await ask('POST', '/api/sign-out', { headers: { cookie: at.cookie, ...headers } })).status, 403, JSON.stringify(headers))
    is((await ask('GET', '/api/me', { headers: { cookie: at.cookie } })).status, 200, 'the cookie afterwards')
  }],
  ['4.1.1', 'nothing about the job is answered to nobody', async () => {
    const { paths } = (await ask('GET', '/api/openapi.json', { token: at.admin })).json
    for (const [path, methods] of Object.entries(paths))
      for (const method of Object.keys(methods).filter(m => ['get', 'put', 'post', 'delete', 'patch'].includes(m))) {
        // Doors for whoever is not in yet, and for machines and carriers, who sign what they say.
        if (/^\/api\/(sign-in|openapi|calendars\/|intake\/(redfish|events)\/)|\/partners\/[^/]+\/events$/.test(path)) continue
        const to = path.replace(/\{[^}]+\}/g, '00000000-0000-0000-0000-000000000001')
        const { status } = await ask(method.toUpperCase(), to, method === 'get' || method === 'delete' ? {} : { body: {} })
        holds([401, 404, 405].includes(status), `${method} ${path} answers ${status} to nobody`)
      }
  }],
  ['4.1.3', 'an engineer is no administrator', async () => {
    for (const [method, path, body] of [
      ['GET', '/api/security-log'],
      ['POST', '/api/people', { name: 'x', fullName: 'x', password: null, roles: ['admin'], mail: null }],
      ['PUT', `/api/people/${made}/roles`, { roles: ['admin'] }],
      ['POST', '/api/admin/verify', {}],
      ['POST', '/api/admin/seal'],
    ])
      is((await ask(method, path, { token: at.token, body })).status, 403, `${method} ${path}`)
  }],
  ['4.2.1', 'nobody sees or ends what is another’s', async () => is((await ask('GET', `/api/people/${admin}/comings-in`, { token: at.token })).status, 403, 'another’s sign-ins')],
  ['5.1.2', 'a field that there is not is refused', async () =>
    is((await ask('POST', '/api/sign-in', { body: { name: made, password: at.password, admin: true } })).status, 400, 'a field too many')],
  ['5.5.1', 'what cannot be read is answered with a sentence and without a trace', async () => {
    for (const body of ['{', '[]', '"x"', '{"name":{"a":1}}', `{"name":"${'a'.repeat(100_000)}","password":"x"}`]) {
      const answer = await ask('POST', '/api/sign-in', { body })
      holds(answer.status >= 400 && answer.status < 500, `${body.slice(0, 20)} is answered ${answer.status}`)
      holds(!/\n\s+at |Exception|\.cs:line/.test(answer.text), 'it tells its insides')
    }
  }],
  ['8.2.1', 'no answer about the job stays in a cache', async () =>
    holds((await ask('GET', '/api/tickets', { token: at.token })).headers.get('cache-control')?.includes('no-store'), 'no-store is missing')],
  ['13.2.1', 'methods and forms that a call does not take are refused', async () => {
    holds([404, 405].includes((await ask('DELETE', '/api/tickets', { token: at.token })).status), 'DELETE of all tickets is answered')
    const form = await ask('POST', '/api/sign-in', { body: 'name=a', headers: { 'content-type': 'application/x-www-form-urlencoded' } })
    holds([404, 415].includes(form.status), `a form is answered ${form.status}`)
  }],
  ['14.4.1', 'types, policy of contents, referrers, frames', async () => {
    const { headers } = await ask('GET', '/')
    is(headers.get('x-content-type-options'), 'nosniff', 'X-Content-Type-Options')
    for (const rule of ["default-src 'self'", "frame-ancestors 'none'"]) holds(headers.get('content-security-policy')?.includes(rule), `${rule} is missing`)
    holds(headers.get('referrer-policy'), 'Referrer-Policy is missing')
    holds(!tls || headers.get('strict-transport-security'), 'Strict-Transport-Security is missing')
  }],
  ['10.3.2', 'the browser runs scripts of our own address alone', async () => {
    const policy = (await ask('GET', '/')).headers.get('content-security-policy') ?? ''
    const scripts = /script-src ([^;]*)/.exec(policy)?.[1] ?? ''
    holds(scripts.includes("'self'") && !/unsafe-inline|'unsafe-eval'|https?:|\*/.test(scripts), `scripts come from ${scripts}`)
  }],
  ['14.4.2', 'what is for programs is shown as no page', async () => {
    for (const path of ['/api/me', '/api/tickets', '/api/openapi.json']) {
      const { headers } = await ask('GET', path, { token: at.token })
      holds(headers.get('content-disposition')?.startsWith('attachment'), `${path} is no attachment`)
      holds(headers.get('content-type')?.includes('json'), `${path} is ${headers.get('content-type')}`)
    }
  }],
  ['14.3.3', 'no name or version of a server', async () => {
    for (const path of ['/', '/api/me']) {
      const { headers } = await ask('GET', path)
      for (const name of ['server', 'x-powered-by', 'x-aspnet-version']) holds(!headers.get(name), `${path} has ${name}: ${headers.get(name)}`)
    }
  }],
  ['4.3.2', 'no folder is listed, and no file served but the console’s', async () => {
    const page = (await ask('GET', '/')).text
    for (const path of ['/assets/', '/.git/config', '/nailcrow.db', '/nailcrow.db.keys/', '/appsettings.json', '/..%2f..%2fetc/passwd', '/%2e%2e/%2e%2e/etc/passwd']) {
      const { status, text } = await ask('GET', path)
      holds(status >= 400 || text === page, `${path} is answered with something`)
    }
  }],
  ['12.2.1', 'a picture is what it begins with', async () => {
    for (const said of ['image/png', 'image/jpeg', 'application/octet-stream']) {
      const to = '/api/tickets/1001/photos/00000000-0000-7000-8000-000000000001'
      const answer = await ask('PUT', to, { token: at.token, body: '<svg xmlns="http://www.w3.org/2000/svg"><script>1</script></svg>', headers: { 'content-type': said } })
      holds(answer.status >= 400 && answer.status < 500, `a drawing that says it is ${said} is answered ${answer.status}`)
    }
  }],
  ['8.3.5', 'who took a list away is in the log', async () => {
    is((await ask('GET', '/api/export/sites', { token: at.admin })).status, 200, 'the list of sites')
    const { lines } = (await ask('GET', '/api/security-log?what=list-exported&limit=1', { token: at.admin })).json
    is(lines[0]?.by, admin, 'who did it')
  }],
  ['8.3.1', 'no password is taken in an address', async () => {
    for (const method of ['GET', 'POST'])
      is((await ask(method, `/api/sign-in?name=${made}&password=${encodeURIComponent(at.password)}`)).json?.accessToken, undefined, `${method} with a password in it`)
  }],
  ['5.1.5', 'nobody is sent on to where an address says', async () => {
    for (const path of ['/sign-in?back=https://elsewhere.example', '/api/sign-in/elsewhere?back=//elsewhere.example']) {
      const to = (await ask('GET', path)).headers.get('location') ?? ''
      holds(!to.includes('//elsewhere.example') || to.includes('%2F%2Felsewhere.example'), `${path} leads to ${to}`)
    }
  }],
  ['14.5.3', 'no other origin is let read', async () =>
    is((await ask('GET', '/api/me', { token: at.token, headers: { origin: 'https://elsewhere.example' } })).headers.get('access-control-allow-origin'), null, 'Access-Control-Allow-Origin')],
  ['2.8.4', 'a one-time code opens once', async () => {
    const { key } = (await ask('POST', '/api/me/second-factor/codes', { token: at.token, body: { password: at.password } })).json
    const set = await ask('PUT', '/api/me/second-factor/codes', { token: at.token, body: { code: oneTimeCode(key) } })
    is(set.status, 200, 'the first code')
    at.recovery = set.json.recoveryCodes
    const without = await signIn(made, at.password)
    is(without.status, 401, 'without a code')
    is(without.json.type, 'urn:nailcrow:second-factor', 'what is asked for')
    const next = oneTimeCode(key, Date.now() + 30_000)
    is((await signIn(made, at.password, { code: next })).status, 200, 'with the next code')
    is((await signIn(made, at.password, { code: next })).status, 401, 'with it once more')
  }],
  ['2.6.1', 'a recovery code is good once', async () => {
    is((await signIn(made, at.password, { code: at.recovery[0] })).status, 200, 'a recovery code')
    is((await signIn(made, at.password, { code: at.recovery[0] })).status, 401, 'once more')
  }],
  ['2.2.1', 'guessing is slowed down, and known and unknown names are told alike', async () => {
    const nobody = `nobody-${made}`
    const told = [await signIn(nobody, 'wrong wrong wrong'), await signIn(made, 'wrong wrong wrong')]
    is(told[0].json.detail, told[1].json.detail, 'the words')
    let tried = 0
    while (tried < 30 && (await signIn(nobody, 'wrong wrong wrong')).status !== 429) tried++
    holds(tried < 30, 'thirty wrong passwords cost nothing')
  }],
  ...(tls
    ? [['9.1.3', 'TLS 1.1 is not spoken', () =>
        new Promise((done, fail) => {
          const old = connect(
            { host: base.hostname, port: Number(base.port || 443), maxVersion: 'TLSv1.1', minVersion: 'TLSv1', rejectUnauthorized: false },
            () => fail(new Error(`${old.getProtocol()} is spoken`)),
          )
          old.on('error', done)
        })]]
    : []),
  ['3.3.4', 'who is shut out is out', async () => {
    is((await ask('POST', `/api/people/${made}/disable`, { token: at.admin, body: { because: 'What it was made for is tried.' } })).status, 200, 'shutting them out')
    is((await ask('GET', '/api/me', { token: at.token })).status, 401, 'their token afterwards')
    is((await signIn(made, at.password, { code: at.recovery[1] })).status, 401, 'signing in again')
  }],
]

const inside = await signIn(admin, adminsPassword, process.env.NAILCROW_CODE ? { code: process.env.NAILCROW_CODE } : {})
if (inside.status !== 200) {
  console.error(`${admin} is not let in: ${inside.json?.detail ?? inside.status}`)
  process.exit(2)
}
at.admin = inside.json.accessToken
let broken = 0
for (const [row, what, attempt] of rows)
  try {
    await attempt()
    console.log(`${row.padEnd(7)} holds   ${what}`)
  } catch (why) {
    broken++
    console.log(`${row.padEnd(7)} BROKEN  ${what}: ${why.message}`)
  }
console.log(`${rows.length - broken} of ${rows.length} rows hold`)
process.exit(broken === 0 ? 0 : 1)
