<script setup lang="ts">
import { computed } from 'vue'
import { useFolioStore } from '~/stores/folio'

/** The controls of the conventions; in the rail of a wide window and in the sheet of a narrow one. */
const folio = useFolioStore()
const c = computed(() => folio.conventions)
const letter = computed(() => c.value.letter)
</script>

<template>
  <div class="choices">
    <ChoiceGroup
      label="Angle"
      group="angle"
      :value="c.angle"
      :choices="[
        { value: 'deg', label: 'degrees °', name: 'Angles in degrees' },
        { value: 'rad', label: 'radians', name: 'Angles in radians' },
      ]"
      @choose="(angle) => folio.convene({ angle })"
    />
    <ChoiceGroup
      label="Letter"
      group="letter"
      :value="c.letter"
      :choices="[
        { value: 'j', label: 'j', name: 'Imaginary unit j' },
        { value: 'i', label: 'i', name: 'Imaginary unit i' },
      ]"
      @choose="(value) => folio.convene({ letter: value })"
    />
    <ChoiceGroup
      label="Place"
      group="place"
      :value="c.place"
      :choices="[
        { value: 'before', label: `a + ${letter}b`, name: `Imaginary unit before the number, a + ${letter}b` },
        { value: 'after', label: `a + b${letter}`, name: `Imaginary unit after the number, a + b${letter}` },
      ]"
      @choose="(place) => folio.convene({ place })"
    />
    <DigitStepper :value="c.digits" @choose="(digits) => folio.convene({ digits })" />
    <ChoiceGroup
      label="Style"
      group="style"
      :value="c.style"
      :choices="[
        { value: 'plain', label: 'plain', name: 'Plain numbers, 14860' },
        { value: 'scientific', label: 'sci', name: 'Scientific, 1.486 times ten to the 4' },
        { value: 'engineering', label: 'eng', name: 'Engineering, exponents in threes, 14.86 times ten to the 3' },
      ]"
      @choose="(style) => folio.convene({ style })"
    />
    <ChoiceGroup
      label="Exact"
      group="exact"
      :value="c.exact"
      :choices="[
        { value: 'decimal', label: '0.5', name: 'Exact values as decimals' },
        { value: 'fraction', label: '½', name: 'Exact values as fractions' },
      ]"
      @choose="(exact) => folio.convene({ exact })"
    />
  </div>
</template>

<style scoped>
.choices {
  display: flex;
  align-items: center;
  gap: 8px 14px;
  flex-wrap: wrap;
}
</style>
