import type { Filling } from './filling'
import { flower } from './flower'
import { hugged } from './hugged'
import { lozengesOfThree, lozengesOfTwo } from './lozenges'
import { straight } from './straight'

/** What can fill a wire across a frame, in the order in which it is offered. */
export const FILLINGS: readonly Filling[] = [straight, hugged, lozengesOfThree, lozengesOfTwo, flower]
export const FILLING_IDS = ['straight', 'hugged', 'lozenges-3', 'lozenges-2', 'flower'] as const
export type FillingId = (typeof FILLING_IDS)[number]

export const fillingOf = (id: string): Filling => FILLINGS.find((one) => one.id === id) ?? straight
