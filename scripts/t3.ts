import loadHighs from 'highs'
import { shelf } from '/work/main/core/test/referee/files'
import { randomProject } from '/work/main/core/test/referee/projects'
import { programmeOf } from '/work/main/core/test/referee/programme'
import { makeLibrary } from '/work/main/core/src/parts'
import { readDesign } from '/work/main/core/src/design'
import { readLibraryFolder } from '/work/main/server/src/files'
import { asCarried, carrierOf, resolveChip } from '/work/main/core/src/chip'
import { suppliesOf } from '/work/main/core/src/circuit'
import { resolveClock } from '/work/main/core/src/clock'
import { resolveNeeds } from '/work/main/core/src/needs'
import { makeDemand, takenPins } from '/work/main/core/src/pins'
import { solvePlan } from '/work/main/core/src/pins/solve'
const highs: any = await loadHighs()
const root='/work/main'
const parts = shelf(root); const library = makeLibrary(readLibraryFolder(root))
const hard = process.argv[2]==='hard'
const [from,to]=[Number(process.argv[3]??1),Number(process.argv[4]??60)]
const t:number[]=[],h:number[]=[]; let bad=0,infeasible=0, first:number[]=[]
const slow:any[]=[]
for(let seed=from;seed<=to;seed++){
  const project = randomProject(parts, seed, {signals:[5,60],hard})
  const decided = readDesign(project,'x'); const design = asCarried(decided, library)
  const { chip } = resolveChip(design, library)
  const {rail} = suppliesOf(design, library)
  const clock = resolveClock(design, library, chip, rail)
  const needs = resolveNeeds(design, library)
  const a0=performance.now()
  const demand = makeDemand({chip: chip!, needs: needs.open, choices: design.pins, taken: takenPins(chip!, clock), clock: clock.frequency.value.typ||undefined})
  const a1=performance.now()
  let f:number|undefined
  const r = solvePlan(demand.problem, {patience:{spent:()=>performance.now()-a1>Number(process.env.LIM??10000), progress:(p)=>{ if(p.best!==undefined) f??=performance.now()-a1 }}})
  const ms=performance.now()-a1; t.push(ms); if(f!==undefined) first.push(f)
  let st='?', val=NaN
  if(!process.env.NOREF){
  const b=performance.now(); let o:any; try { o=highs.solve(programmeOf(project,parts),{time_limit:60}) } catch(e){ console.log('seed',seed,'highs failed',String(e).slice(0,80)); continue }
  h.push(performance.now()-b); st=o.Status; val=o.ObjectiveValue
  const same = r.status==='proven'? st==='Optimal'&&Math.round(val)===r.cost : r.status==='infeasible' && st==='Infeasible'
  if(!same){bad++; console.log('seed',seed,chip!.id,demand.signals.length,'signals', demand.problem.signals.reduce((n,s)=>n+s.candidates.length,0),'cands',r.status,(r as any).cost,(r as any).bound,'vs',st,val,'ms',ms.toFixed(0),'nodes',r.nodes)}
  }
  if(r.status==='infeasible') infeasible++
  if(ms>200) slow.push([seed,chip!.id,demand.signals.length,r.status,(r as any).cost,ms.toFixed(0),r.nodes,'demand',(a1-a0).toFixed(0)].join(' '))
}
const q=(l:number[],f:number)=>[...l].sort((a,b)=>a-b)[Math.floor(l.length*f)]?.toFixed(1)
console.log({n:t.length,bad,infeasible}, 'ours',q(t,.5),q(t,.95),q(t,.9999),'first plan',q(first,.5),q(first,.95),q(first,.9999),'highs',q(h,.5),q(h,.95),q(h,.9999))
console.log(slow.join('\n'))
