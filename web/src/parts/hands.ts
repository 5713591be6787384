/** What a cook with wet hands does to a page that is led by keys and taps. */

/** A button that was tapped lets go of the focus, so that the next key goes on and does not tap it again. */
export function letGo(e: MouseEvent) {
  if (e.detail > 0 && document.activeElement instanceof HTMLElement && document.activeElement.closest('button')) document.activeElement.blur()
}

/** Whether a key was pressed where something is typed or chosen. */
export const inField = (t: EventTarget | null) =>
  t instanceof HTMLElement && !!t.closest('input:not([type=radio]), textarea, select, .el-dialog, .el-drawer, .el-popper')
