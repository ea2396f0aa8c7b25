/** Heights of the drawing [px]. */
export const SCORE_TOP = 44;
export const SCORE_HEIGHT = 118;
export const GROUND = SCORE_TOP + SCORE_HEIGHT;
