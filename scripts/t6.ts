import { shelf } from '/work/main/core/test/referee/files'
import { randomProject } from '/work/main/core/test/referee/projects'
import { makeLibrary } from '/work/main/core/src/parts'
import { readDesign } from '/work/main/core/src/design'
import { readLibraryFolder } from '/work/main/server/src/files'
import { asCarried, resolveChip } from '/work/main/core/src/chip'
import { suppliesOf } from '/work/main/core/src/circuit'
import { resolveClock } from '/work/main/core/src/clock'
import { resolveNeeds } from '/work/main/core/src/needs'
import { makeDemand, takenPins } from '/work/main/core/src/pins'
import { solvePlan } from '/work/main/core/src/pins/solve'
import { frameOf } from '/work/main/core/src/pins/solve/state'
import { analyse } from '/work/main/core/src/analysis'
const root='/work/main'
const parts = shelf(root); const library = makeLibrary(readLibraryFolder(root))
const seed=Number(process.argv[2])
for (let k=0;k<6;k++){
  const project = randomProject(parts, seed, {signals:[5,60]})
  const decided = readDesign(project,'x'); const design = asCarried(decided, library)
  const { chip } = resolveChip(design, library)
  const {rail} = suppliesOf(design, library)
  const clock = resolveClock(design, library, chip, rail)
  const n0=performance.now()
  const needs = resolveNeeds(design, library)
  const a0=performance.now()
  const demand = makeDemand({chip: chip!, needs: needs.open, choices: design.pins, taken: takenPins(chip!, clock), clock: clock.frequency.value.typ||undefined})
  const a1=performance.now(); if(k===0) console.log("cands",demand.problem.signals.reduce((n,s)=>n+s.candidates.length,0),"options",demand.problem.choices!.map(c=>c.options.length))
  frameOf(demand.problem)
  const a2=performance.now()
  let f=0
  const r=solvePlan(demand.problem,{patience:{spent:()=>false,progress:(p)=>{if(p.best!==undefined) f||=performance.now()-a2}}})
  const a3=performance.now()
  analyse(decided, library)
  console.log('needs',(a0-n0).toFixed(1),'demand',(a1-a0).toFixed(1),'frame',(a2-a1).toFixed(1),'first',f.toFixed(1),'solve',(a3-a2).toFixed(1),r.nodes,'analyse',(performance.now()-a3).toFixed(1))
}
