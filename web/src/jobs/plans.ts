/** A job: what stands against it, what people have to say about it, its kit, its briefing, its flights. */
/** Where the plan of a kind of work lies, and how it is called. */
export const planOf: Partial<Record<string, { path: string; words: string }>> = {
  spraying: { path: "spray", words: "Spray plan" },
  mapping: { path: "mission", words: "Survey plan" },
  inspection: { path: "mission", words: "Inspection plan" },
};
