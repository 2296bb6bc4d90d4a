import type { DrawerColumn } from '#shared/sheet/drawer-cells'

/** The heads of the drawer’s columns. */
export const drawerTitles: Readonly<Record<DrawerColumn, string>> = {
  slot: 'Kind',
  name: 'What',
  facts: 'What it is',
  grams: 'Each, g',
  known: 'Known by',
  owned: 'Owned',
  left: 'In drawer',
  price: 'Each costs',
}
