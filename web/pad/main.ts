import '@fontsource-variable/atkinson-hyperlegible-next/wght.css'
import '@fontsource-variable/bricolage-grotesque/wght.css'
import '../styles/tokens.scss'
import './pad.scss'
import { createApp } from 'vue'
import { keepPageHere } from '../offline/newVersion.ts'
import PadApp from './PadApp.vue'
import { openPadOutbox } from './mail.ts'
import { tokenIn } from './token.ts'

// As the phone has it: its owner sets no theme for a page that is opened six times a day.
const dark = matchMedia('(prefers-color-scheme: dark)')
const dress = () => document.documentElement.setAttribute('data-bs-theme', dark.matches ? 'dark' : 'light')
dark.addEventListener('change', dress)
dress()

// A page of its own: small enough for a phone in the woods, and without a way to the rest of the house.
const token = tokenIn(location.pathname)
createApp(PadApp, { token, outbox: await openPadOutbox() }).mount('#pad')
if (import.meta.env.PROD) void keepPageHere()
