import { chromium } from '@playwright/test'
const base='http://127.0.0.1:5999'
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox','--disable-gpu','--disable-quic','--no-first-run','--disable-background-networking','--disable-component-update','--disable-sync'] })
const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, locale: 'en-GB' })
page.on('console', m => m.type()==='error' && console.log('console:', m.text()))
page.on('pageerror', e => console.log('pageerror', e.message))
await page.goto(base); await page.getByLabel('Email').fill(process.env.WHO??'head@heronquay.example'); await page.getByLabel('Password').fill('heron-quay-on-loopback'); await page.getByRole('button',{name:'Sign in'}).click(); await page.getByRole('navigation',{name:'Rooms'}).waitFor()
const steps = (await import(process.argv[2])).default
for (const [name, act] of steps) { try { await act(page, base); await page.waitForTimeout(700); await page.screenshot({ path: `/tmp/look/${name}.png` }); console.log(name) } catch (e) { console.log(name, 'FAILED', e.message.split('\n')[0]); await page.screenshot({ path: `/tmp/look/${name}.png` }) } }
await browser.close()
