/** Whether the person wants things to stand still that would move by themselves. */
export const wantsStillness = () => window.matchMedia('(prefers-reduced-motion: reduce)').matches
