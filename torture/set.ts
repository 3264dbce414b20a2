/** What every set that is written here is like; it gets its name where it is made. */
export const plainSet = {
  figureScaleMm: 28,
  levelMm: 15,
  productId: 'coating-epoxy',
  recipeId: 'clear',
  benchWindows: null,
  job: null,
};
