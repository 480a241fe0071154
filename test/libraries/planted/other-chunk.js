import { notices, words } from './constants.js'

export const load = () => fetch(`${notices}/v1/notices?words=${words.join()}`)
