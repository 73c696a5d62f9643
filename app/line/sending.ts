/** What sends, counts and forgets what this browser keeps of pieces and makings, in one door. */
export { countUnsent, findUnsent, forgetAccount } from './kept'
export { countWaiting, forgetMakings, sendWaiting } from './making'
export { Line, wantsChoice } from './line'
