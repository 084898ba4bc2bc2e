import { readFileSync } from 'node:fs'
import { classify } from '../core/font/classify'
const want=JSON.parse(readFileSync('tests/type/shipped-classes.json','utf8'))
const faces=JSON.parse(readFileSync('/tmp/h/faces.json','utf8')) as any[]
const fams=[...new Set(faces.map(f=>f.family))].sort()
for(const fam of fams){const f=faces.filter(x=>x.family===fam).sort((a,b)=>(a.slant==='italic'?1:0)-(b.slant==='italic'?1:0)||Math.abs(a.weight-400)-Math.abs(b.weight-400))[0]
 const c=classify(f.measures); const w=want[fam]; console.log((w?(w.includes(c.class)?'  ':'X '):'? ')+fam.padEnd(26),c.class,c.kind,c.margin,'| '+c.reasons.join('; '))}
