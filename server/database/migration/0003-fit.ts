import type { Knex } from 'knex'

/**
 * A piece is made to any measure of a body now, not to a wrist alone: what the workshop shows of it and its kept steps
 * follow.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    update piece set summary = (summary - 'closesAtMm' - 'wristMm')
      || jsonb_build_object('kind', 'bracelet', 'finishedMm', summary->'closesAtMm', 'bodyMm', summary->'wristMm')
    where summary \\? 'wristMm'
  `)
  await db.raw(`
    update revision set steps = (
      select jsonb_agg(
        case
          when step->'path'->>0 = 'fit' and step->'path'->>1 = 'wristMm'
            then jsonb_set(step, '{path}', '["fit", "bodyMm"]')
          else step
        end order by place)
      from jsonb_array_elements(steps) with ordinality as s(step, place)
    )
    where steps @> '[{"path": ["fit", "wristMm"]}]'
  `)
}

export async function down(db: Knex): Promise<void> {
  await db.raw(`
    update piece set summary = (summary - 'finishedMm' - 'bodyMm' - 'kind')
      || jsonb_build_object('closesAtMm', summary->'finishedMm', 'wristMm', summary->'bodyMm')
    where summary \\? 'bodyMm'
  `)
}
