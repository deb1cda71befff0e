/** How near answers have to be to lie together, where nothing else was chosen: calibrated on tests/reference/near-answers.json. */
export const usualThreshold = 0.65;
