/** Words for perceived effort 0 to 10, in our own wording after the CR10 idea. */
export const RPE_WORDS = [
  "Rest",
  "Very easy",
  "Easy",
  "Fair",
  "Fairly hard",
  "Hard",
  "Heavy",
  "Very hard",
  "Severe",
  "Near the limit",
  "Nothing left",
] as const;
