import type { Knex } from 'knex'

/**
 * A piece is made, once or often: each making has the revision that it began with and its events, which are added and
 * never changed. Where a person had stopped on a disc becomes the first event of a making.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    create table making (
      id uuid primary key default gen_random_uuid(),
      piece_id uuid not null references piece on delete cascade,
      begun_as text not null,
      revision integer not null,
      head jsonb not null,
      created_at timestamptz not null default now(),
      unique (piece_id, begun_as),
      constraint making_revision check (revision >= 0)
    );

    create table making_event (
      making_id uuid not null references making on delete cascade,
      seq bigint generated always as identity,
      id text collate "C" not null,
      at bigint not null,
      kind text not null,
      event jsonb not null,
      primary key (making_id, id)
    );
    create index making_event_seq on making_event (making_id, seq);
    create index making_event_kind on making_event (making_id, kind, at desc, id desc);

    insert into making (piece_id, begun_as, revision, head, created_at)
      select piece.id, 'carried', piece.revision, '{"copies":1,"copyOrder":"in turn","name":""}', min(place.updated_at)
      from making_place as place join piece on piece.id = place.piece_id
      where place.move > 0
      group by piece.id;
    insert into making_event (making_id, id, at, kind, event)
      select making.id, 'carried-' || md5(place.part), floor(extract(epoch from place.updated_at) * 1000), 'moved',
        jsonb_build_object('do', 'moved', 'part', place.part, 'moves', place.move)
      from making_place as place join making on making.piece_id = place.piece_id
      where place.move > 0;
    drop table making_place
  `)
}

export async function down(db: Knex): Promise<void> {
  await db.raw(`
    create table making_place (
      piece_id uuid not null references piece on delete cascade,
      part text not null,
      move integer not null,
      updated_at timestamptz not null default now(),
      primary key (piece_id, part),
      constraint making_place_move check (move >= 0)
    );
    insert into making_place (piece_id, part, move, updated_at)
      select distinct on (making.piece_id, event->>'part')
        making.piece_id, event->>'part', (event->>'moves')::integer, to_timestamp(at / 1000.0)
      from making_event join making on making.id = making_event.making_id
      where kind = 'moved'
      order by making.piece_id, event->>'part', at desc;
    drop table making_event;
    drop table making
  `)
}
