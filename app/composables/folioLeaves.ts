import { fetchNoteWriter } from './clipboardLines'

/** What of the folio's page is fetched when it is first opened, or once the page has nothing else to do. */
export const FOLIO_LEAVES = [
  () => import('~/components/common/AskDialog.vue'),
  () => import('~/components/common/MenuSheet.vue'),
  () => import('~/components/desk/FindPalette.vue'),
  () => import('~/components/desk/KeysDialog.vue'),
  () => import('~/components/desk/RenameDialog.vue'),
  () => import('~/components/desk/AnswerDialog.vue'),
  () => import('~/components/conventions/ConventionsSheet.vue'),
  () => import('~/components/curve/CurvePlate.vue'),
  fetchNoteWriter,
  () => import('~/components/desk/GridPane.vue'),
  () => import('~/components/desk/HandbookPane.vue'),
  () => import('~/components/desk/JournalPane.vue'),
  () => import('~/components/desk/LeavesPane.vue'),
  () => import('~/components/desk/ReductionPane.vue'),
  () => import('~/components/desk/RunsPane.vue'),
  () => import('~/components/desk/TablePane.vue'),
  () => import('~/components/working/WorkingPane.vue'),
  () => import('~/components/exchange/ComparePane.vue'),
  () => import('~/components/exchange/ExchangePane.vue'),
  () => import('~/components/exchange/ImportPane.vue'),
] as const
