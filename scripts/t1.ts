import loadHighs from 'highs'
import { solvePlan } from '/work/main/core/src/pins/solve'
import { steps } from '/work/main/core/src/pins/solve/patience'
import { integerProgramme } from '/work/main/core/src/pins/solve/test/integer-programme'
import { randomInstance } from '/work/main/core/src/pins/solve/test/instances'
const highs: any = await loadHighs()
const sizes: any[] = [[150,{pins:40,signals:25}],[60,{pins:80,signals:40}],[40,{pins:144,signals:60}]]
for (const [n, shape] of sizes) {
  const t:number[]=[], h:number[]=[], nd:number[]=[]
  let bad=0
  for (let seed=1; seed<=n; seed++) {
    const p = randomInstance(seed, shape)
    let a = performance.now()
    const until = a+10000
    const r = solvePlan(p, {patience: {spent: () => performance.now()>until}})
    t.push(performance.now()-a); nd.push(r.nodes)
    a = performance.now()
    const o = highs.solve(integerProgramme(p))
    h.push(performance.now()-a)
    const same = r.status==='proven' ? o.Status==='Optimal' && Math.round(o.ObjectiveValue)===r.cost : r.status==='infeasible' && o.Status==='Infeasible'
    if(!same) { bad++; console.log('seed',seed,r.status,(r as any).cost,(r as any).bound,o.Status,o.ObjectiveValue, r.nodes) }
  }
  const s=[...t].sort((a,b)=>a-b), q=(f:number)=>s[Math.floor(s.length*f)]!.toFixed(2)
  const hs=[...h].sort((a,b)=>a-b), hq=(f:number)=>hs[Math.floor(hs.length*f)]!.toFixed(2)
  console.log(shape,'bad',bad,'ours',q(.5),q(.95),q(.999),'highs',hq(.5),hq(.95),hq(.999),'worst nodes',Math.max(...nd), 'seed', t.indexOf(Math.max(...t))+1)
}
