import { readFileSync, readdirSync, existsSync, writeFileSync } from 'node:fs'
import { checkFontFile } from '../server/library/font-file'
const root='/tmp/h/fs'
const out:any[]=[]
for (const name of readdirSync(root).sort()) {
  const meta=`${root}/${name}/metadata.json`
  if(!existsSync(meta)) continue
  const m=JSON.parse(readFileSync(meta,'utf8'))
  const file=`${root}/${name}/files/${name}-latin-400-normal.woff2`
  if(!existsSync(file)){console.log('no file',name);continue}
  try{ const {face}=await checkFontFile(new Uint8Array(readFileSync(file))); out.push({name,family:m.family,category:m.category,face:{...face,ranges:[]}}) }catch(e){console.log(name,String(e))}
}
writeFileSync('/tmp/h/labelled.json',JSON.stringify(out)); console.log(out.length)
