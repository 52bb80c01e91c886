import { chromium } from '@playwright/test'
const [,, who, stepsFile, w='1280', h='800'] = process.argv
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox','--disable-gpu','--disable-quic','--no-first-run','--disable-background-networking','--disable-component-update','--disable-sync'] })
const page = await browser.newPage({ viewport: { width: +w, height: +h }, locale: 'en-GB' })
page.on('pageerror', e => console.log('PAGEERROR', e.message)); page.on('console', m => m.type()==='error' && console.log('CONSOLE', m.text()))
page.on('response', r => r.status() >= 400 && console.log(r.status(), r.url()))
const base='http://127.0.0.1:5999'
await page.goto(base); await page.getByLabel('Email').fill(`${who}@heronquay.example`); await page.getByLabel('Password').fill('heron-quay-on-loopback'); await page.getByRole('button',{name:'Sign in'}).click(); await page.getByRole('navigation',{name:'Rooms'}).waitFor()
const shot = async n => { await page.waitForLoadState('networkidle'); await page.screenshot({ path: `/tmp/shot-${n}.png` }) }
const go = p => page.goto(base+p)
try { await (await import(stepsFile)).default({ page, shot, go }) } catch (e) { console.log(String(e).slice(0,900)); await shot('fail') }
await browser.close()
