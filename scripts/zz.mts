import { fontFiles, readFontFile, contentHash } from '../server/library/files'
import { readFace } from '../core/font/read'
import { readFileSync, writeFileSync } from 'node:fs'
const files = fontFiles()
const t0 = performance.now()
const faces = files.map(f => { const b = readFontFile(f.path); return readFace(b, contentHash(b), f.source) })
console.log(files.length, 'faces', ((performance.now()-t0)/files.length).toFixed(2), 'ms each')
writeFileSync('/tmp/h/faces.json', JSON.stringify(faces.map(f=>({...f,ranges:[]}))))
