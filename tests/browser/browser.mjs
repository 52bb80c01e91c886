// The browser everything here runs in, and what is measured in it.
import { chromium } from '@playwright/test'

/** Nothing but the page speaks to the network. */
export const launchOptions = {
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
}

export const base = process.env.ZEITPLAN_BASE
export const launch = () => chromium.launch(launchOptions)

/** @param who head, instructor or assistant of the demo school. */
export async function enter(page, who = 'head') {
  await page.goto(base)
  await page.getByLabel('Email').fill(`${who}@heronquay.example`)
  await page.getByLabel('Password').fill(process.env.ZEITPLAN_PASSWORD)
  await page.getByRole('button', { name: 'Sign in', exact: true }).click()
  await page.getByRole('navigation', { name: 'Rooms' }).waitFor()
}

export const say = (name, value, unit) => console.log(`${name}: ${Math.round(value * 100) / 100} ${unit}`)
export const quantile = (values, part) =>
  values.toSorted((a, b) => a - b)[Math.min(values.length - 1, Math.ceil(values.length * part) - 1)]
