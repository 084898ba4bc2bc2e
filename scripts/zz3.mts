import { fontFiles, readFontFile, contentHash } from '../server/library/files'
import { readFace as now } from '../core/font/read'
const { readFace: before } = await import('/work/main/core/font/read.ts')
const files = fontFiles().filter((_,i)=>i%8===0).map(f=>readFontFile(f.path))
let a=0,b=0
for (let r=0;r<3;r++) for (const x of files){ let t=performance.now(); before(x,'h','shipped'); a+=performance.now()-t; t=performance.now(); now(x,'h','shipped'); b+=performance.now()-t }
console.log(files.length,(a/files.length/3).toFixed(2),(b/files.length/3).toFixed(2),(b/a).toFixed(2))
