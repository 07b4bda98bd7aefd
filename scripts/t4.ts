import { shelf } from '/work/main/core/test/referee/files'
import { randomProject } from '/work/main/core/test/referee/projects'
const parts=shelf('/work/main')
for (const seed of [12,117]) { const p=randomProject(parts,seed,{signals:[5,60]}); console.log(seed,p.chip,p.pins, p.needs.devices.map((d:any)=>`${d.count}x${d.part}${d.wiring?':'+d.wiring:''}${d.settings?JSON.stringify(d.settings):''}`).join(', ')) }
