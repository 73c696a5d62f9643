import type { Poses } from './problem'

/** How beads lie, as columns: middles in mm, turns in radians, and the side on which a second hole lies. */
export interface Lying {
  readonly x: Float64Array
  readonly y: Float64Array
  readonly turn: Float64Array
  readonly flip: Int8Array
}

/** One of them. */
export interface Pose {
  readonly x: number
  readonly y: number
  readonly turn: number
  readonly flip: number
}

export function lyingOf(poses: readonly Pose[]): Lying {
  return {
    x: Float64Array.from(poses, (p) => p.x),
    y: Float64Array.from(poses, (p) => p.y),
    turn: Float64Array.from(poses, (p) => p.turn),
    flip: Int8Array.from(poses, (p) => p.flip),
  }
}

export const poseAt = ({ x, y, turn, flip }: Lying, i: number): Pose => ({
  x: x[i]!,
  y: y[i]!,
  turn: turn[i]!,
  flip: flip[i]!,
})

/** An angle between −π and π. */
export const wrapped = (angle: number): number => Math.atan2(Math.sin(angle), Math.cos(angle))

/** Poses as numbers, a ten-thousandth of a thousandth of a mm being the same to everyone. */
export function posesOf(lying: Lying): Poses {
  const out: number[] = []
  for (let i = 0; i < lying.x.length; i++) {
    const { x, y, turn, flip } = poseAt(lying, i)
    out.push(tidied(x), tidied(y), tidied(wrapped(turn)), flip)
  }
  return out
}

const tidied = (value: number): number => Math.round(value * 1e7) / 1e7 + 0

export const poseIn = (poses: Poses, i: number): Pose => ({
  x: poses[4 * i]!,
  y: poses[4 * i + 1]!,
  turn: poses[4 * i + 2]!,
  flip: poses[4 * i + 3]!,
})

/** Turned about the origin. */
export const turned = (p: Pose, angle: number): Pose => ({
  ...p,
  x: p.x * Math.cos(angle) - p.y * Math.sin(angle),
  y: p.x * Math.sin(angle) + p.y * Math.cos(angle),
  turn: p.turn + angle,
})

/** Turned over about the axis x. */
export const mirrored = (p: Pose): Pose => ({ x: p.x, y: -p.y, turn: -p.turn, flip: -p.flip })

/** Where it lies in the copy of the cell that is so many on. */
export const imageOf = (p: Pose, shift: number, pitch: number, glide: boolean): Pose => {
  const moved = glide && shift % 2 !== 0 ? mirrored(p) : p
  return { ...moved, x: moved.x + shift * pitch }
}

/** Where a point of a bead lies. */
export const pointOf = ({ x, y, turn, flip }: Pose, u: number, v: number): { x: number; y: number } => {
  const [c, s] = [Math.cos(turn), Math.sin(turn)]
  return { x: x + u * c - v * flip * s, y: y + u * s + v * flip * c }
}
