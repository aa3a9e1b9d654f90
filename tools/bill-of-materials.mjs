// What ships and is not ours, as CycloneDX 1.6 JSON: node tools/bill-of-materials.mjs > nailcrow.cdx.json, after a build and `npm ci`.
// Packages of .NET are those that the service, the command and the stand-in were restored with; of npm, those that the console is built from.
import { createHash } from 'node:crypto'
import { existsSync, readFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

const root = join(dirname(fileURLToPath(import.meta.url)), '..')
const json = file => JSON.parse(readFileSync(file, 'utf8'))
const shipped = ['Service', 'Cli', 'StandIn'].map(project => join(root, 'src', `Nailcrow.${project}`, 'obj', 'project.assets.json'))
for (const assets of shipped) if (!existsSync(assets)) throw new Error(`${assets} is not there: build first.`)

const hash = (alg, base64) => [{ alg, content: Buffer.from(base64, 'base64').toString('hex') }]
const licence = text => (text ? { licenses: [/ (OR|AND|WITH) /.test(text) ? { expression: text } : /^https?:/.test(text) ? { license: { url: text, name: 'see url' } } : { license: { id: text } }] } : {})

/** What a package says of its own licence: an SPDX expression, or where it is to be read. */
function nugetLicence(folder, path, id) {
  const spec = join(folder, path, `${id.toLowerCase()}.nuspec`)
  if (!existsSync(spec)) return null
  const text = readFileSync(spec, 'utf8')
  return /<license type="expression">([^<]+)</.exec(text)?.[1] ?? /<licenseUrl>([^<]+)</.exec(text)?.[1] ?? null
}

const components = new Map()
for (const assets of shipped.map(json)) {
  const folder = Object.keys(assets.packageFolders)[0]
  for (const [key, { type, sha512, path }] of Object.entries(assets.libraries)) {
    if (type !== 'package') continue
    const [name, version] = key.split('/')
    const purl = `pkg:nuget/${name}@${version}`
    components.set(purl, { type: 'library', name, version, purl, 'bom-ref': purl, hashes: hash('SHA-512', sha512), ...licence(nugetLicence(folder, path, name)) })
  }
}
for (const [path, { version, integrity, dev, license }] of Object.entries(json(join(root, 'console', 'package-lock.json')).packages)) {
  if (!path || dev || !integrity) continue
  const name = path.slice(path.lastIndexOf('node_modules/') + 'node_modules/'.length)
  const purl = `pkg:npm/${name.replace('@', '%40')}@${version}`
  components.set(purl, { type: 'library', name, version, purl, 'bom-ref': purl, hashes: hash('SHA-512', integrity.replace(/^sha512-/, '')), ...licence(license) })
}
const list = 'src/Nailcrow.Service/People/SigningIn/common-passwords.txt.gz'
components.set(list, {
  type: 'data',
  name: 'common passwords, from @zxcvbn-ts/language-common',
  version: '4.1.3',
  'bom-ref': list,
  hashes: [{ alg: 'SHA-256', content: createHash('sha256').update(readFileSync(join(root, list))).digest('hex') }],
  ...licence('MIT'),
})
const version = /<Version>([^<]+)</.exec(readFileSync(join(root, 'Directory.Build.props'), 'utf8'))?.[1] ?? '0'
console.log(
  JSON.stringify(
    {
      bomFormat: 'CycloneDX',
      specVersion: '1.6',
      version: 1,
      metadata: { component: { type: 'application', name: 'Nailcrow', version, 'bom-ref': 'nailcrow' } },
      components: [...components.values()].sort((a, b) => (a['bom-ref'] < b['bom-ref'] ? -1 : 1)),
    },
    null,
    1,
  ),
)
