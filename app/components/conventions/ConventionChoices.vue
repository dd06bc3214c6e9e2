<script setup lang="ts">
import { computed } from 'vue'
import { useFolioStore } from '~/stores/folio'

/** The controls of the conventions; in the rail of a wide window and in the sheet of a narrow one. */
const folio = useFolioStore()
const c = computed(() => folio.conventions)
const letter = computed(() => c.value.letter)

/** The unit of bare numbers and the form of degrees are one choice to the eye. */
type AngleChoice = 'decimal' | 'minutes' | 'rad'
const angle = computed<AngleChoice>(() => (c.value.angle === 'rad' ? 'rad' : c.value.degrees))
function chooseAngle(choice: AngleChoice): void {
  folio.convene(choice === 'rad' ? { angle: 'rad' } : { angle: 'deg', degrees: choice })
}
</script>

<template>
  <div class="choices">
    <ChoiceGroup
      label="Angle"
      group="angle"
      :value="angle"
      :choices="[
        { value: 'decimal', label: 'degrees °', name: 'Angles in degrees with decimals, 36.87°' },
        { value: 'minutes', label: '0°0′0″', name: 'Angles in degrees, minutes and seconds, 36° 52′ 12″' },
        { value: 'rad', label: 'radians', name: 'Angles in radians' },
      ]"
      @choose="chooseAngle"
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
        { value: 'prefix', label: 'k m µ', name: 'Engineering with prefixes, 14.86k' },
      ]"
      @choose="(style) => folio.convene({ style })"
    />
    <ChoiceGroup
      label="Exact"
      group="exact"
      :value="c.exact"
      :choices="[
        { value: 'decimal', label: '1.5', name: 'Exact values as decimals, 1.5' },
        { value: 'fraction', label: '3/2', name: 'Exact values as fractions, 3/2' },
        { value: 'mixed', label: '1½', name: 'Exact values as mixed numbers, 1 + 1/2' },
      ]"
      @choose="(exact) => folio.convene({ exact })"
    />
  </div>
</template>

<style scoped>
.choices {
  display: flex;
  align-items: center;
  gap: 8px 12px;
  flex-wrap: wrap;
}
</style>
