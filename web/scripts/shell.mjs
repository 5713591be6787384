// Writes dist/sw.js: the service worker with the files of this build and their common hash.
import { createHash } from 'node:crypto'
import { readdirSync, readFileSync, writeFileSync } from 'node:fs'

const elsewhere = ['.keep', 'sw.js', 'trust.html', 'index.html'] // trust.html is for who has no TLS yet
const files = readdirSync('dist', { recursive: true, withFileTypes: true })
  .filter((f) => f.isFile() && !elsewhere.includes(f.name) && !f.name.startsWith('trust-'))
  .map((f) => `${f.parentPath.replace(/^dist\/?/, '')}/${f.name}`.replace(/^\/?/, '/'))
  .sort()
const worker = readFileSync('src/away/sw.js', 'utf8')
const hash = createHash('sha256').update(worker).update(readFileSync('dist/index.html'))
for (const f of files) hash.update(f).update(readFileSync(`dist${f}`))
const version = hash.digest('hex').slice(0, 12)
writeFileSync('dist/sw.js', worker.replace(`'__VERSION__'`, JSON.stringify(version)).replace(`['__FILES__']`, JSON.stringify(['/', ...files])))
console.log(`The app shell ${version}: ${files.length + 1} files`)
