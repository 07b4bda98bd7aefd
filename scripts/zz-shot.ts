import { chromium } from '@playwright/test'
const browser = await chromium.launch({executablePath:'/usr/bin/chromium',args:['--headless','--no-sandbox','--disable-gpu']})
const page = await browser.newPage({viewport:{width:1280,height:800}})
const base='http://127.0.0.1:4899'
page.on('console',m=>{ if(m.type()==='error') console.log('console',m.text())})
page.on('pageerror',e=>console.log('pageerror',e.message))
const { readFileSync } = await import('node:fs')
const project = JSON.parse(readFileSync(process.argv[2]!,'utf8'))
const made = await (await page.request.post(base+'/api/projects',{data:project})).json() as any
if(made.title) console.log(JSON.stringify(made).slice(0,500))
await page.goto(`${base}/projects/${made.id}/${process.argv[3]}`)
await page.waitForTimeout(Number(process.argv[5]??3000))
console.log('isolated', await page.evaluate(()=>crossOriginIsolated))
for (const act of process.argv.slice(6)) { const [k,...v]=act.split('='); const t=v.join('='); if(k==='click') await page.getByRole('button',{name:new RegExp(t)}).first().click(); if(k==='wait') await page.waitForTimeout(Number(t)); if(k==='key') await page.keyboard.press(t) }
await page.screenshot({path:process.argv[4]!})
await browser.close()
