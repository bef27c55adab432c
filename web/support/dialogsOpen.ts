/** How many dialogs are open: what is on its way out counts no more, whatever is still drawn. */
export const dialogsOpen = { count: 0 }
