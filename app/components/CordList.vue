<script setup lang="ts">
import { computed } from 'vue'
import { discOf } from '#core/piece/nature'
import { trayByNumber, type Part, type Piece } from '#core/piece/piece'
import { strandCords } from '#core/tally/cords'
import { placeOfSlot } from '#core/tally/strand'

/** The cords of a plain braid, strand by strand: where each lies, its colour and thickness. */
const props = defineProps<{ piece: Piece; part: Part; editable?: boolean }>()
const emit = defineEmits<{ cord: [bobbin: number, number: number]; doubled: [bobbin: number, doubled: boolean] }>()
const letters = computed(() => trayByNumber(props.piece.tray))
const plan = computed(() => discOf(props.part)!.plan(props.part.settings))
const cords = computed(() =>
  strandCords(props.part, props.piece.tray).map((c) => ({
    ...c,
    bead: letters.value.get(c.number),
    slot: plan.value.load[c.bobbin - 1]!,
  })),
)
const changing = computed(() => cords.value.filter((c) => c.changes))
</script>

<template>
  <div>
    <p v-if="changing.length" class="warn">
      {{ changing.length === 1 ? 'Strand' : 'Strands' }} {{ changing.map((c) => c.bobbin).join(', ') }} would change
      colour on the way: a cord keeps one from end to end.
    </p>
    <ol>
      <li v-for="c in cords" :key="c.bobbin">
        <span class="bobbin">{{ c.bobbin }}</span>
        <span class="swatch" :style="{ '--bead': c.bead?.colour ?? 'transparent' }" aria-hidden="true" />
        <span v-if="editable" class="choose">
          <select
            :value="c.number"
            :aria-label="`Cord of strand ${c.bobbin}`"
            @change="(e) => emit('cord', c.bobbin, Number((e.target as HTMLSelectElement).value))"
          >
            <option v-for="b in piece.tray" :key="b.number" :value="b.number">{{ b.letter }} {{ b.name }}</option>
          </select>
          <label
            ><input
              type="checkbox"
              :checked="c.doubled"
              @change="(e) => emit('doubled', c.bobbin, (e.target as HTMLInputElement).checked)"
            />
            two<span class="hidden"> cords in the slot of strand {{ c.bobbin }}</span></label
          >
        </span>
        <span v-else
          ><b>{{ c.bead ? `${c.bead.letter} ${c.bead.name}` : 'no cord' }}</b>
          <span class="quiet">{{ c.diameterMm }} mm{{ c.doubled ? ', two in the slot' : '' }}</span></span
        >
        <span class="quiet slot">slot {{ c.slot }}, {{ placeOfSlot(c.slot, plan.slots) }}</span>
      </li>
    </ol>
  </div>
</template>

<style scoped>
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 26px 24px 1fr auto;
  gap: 10px;
  align-items: center;
  padding: 6px 0;
  border-top: 1px solid var(--line);
}
.bobbin {
  font: 700 20px/1 var(--title);
}
.slot {
  text-align: end;
}
.choose {
  display: flex;
  gap: 6px 14px;
  align-items: center;
  flex-wrap: wrap;
}
select {
  font: 650 15px/1.2 var(--text);
  color: var(--ink);
  background: var(--paper);
  border: 1.5px solid var(--edge);
  border-radius: 9px;
  min-height: 40px;
  padding: 0 8px;
}
label {
  display: inline-flex;
  gap: 6px;
  align-items: center;
  min-height: 40px;
  cursor: pointer;
}
label input {
  width: 18px;
  height: 18px;
  accent-color: var(--madder);
}
.warn {
  color: var(--marigold);
  margin-bottom: 8px;
}
</style>
