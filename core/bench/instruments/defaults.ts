/** How instruments take part in a run. General practice of the app itself; each names what goes wrong otherwise. */
export const AUTO = {
  /** s between gauge readings that join the log: enough for a verdict, few enough to read years later */
  dryEveryS: 60,
  /** s between temperatures of a load test that join the log, and s after which nobody waits for its end any more */
  warmEveryS: 60,
  warmMostS: 7200,
  /** ms that a reading may come early and still count for its minute */
  slackMs: 2000,
  /** ms between looks at the level while the pump runs: a pump runs dry in a second or two */
  guardEveryMs: 250,
  /** ms until the next look where the step has no level to guard */
  guardRestMs: 5000,
  /** ms after the pump started in which a falling level is gas being squeezed, not a trend: the level itself still counts */
  guardStartMs: 1200,
  /** s from a level's reading until the pump stands; without it a small reservoir is empty by then */
  guardLeadS: 0.6,
  /** s within which a supply answers a command; afterwards its word counts as a hand at the switch */
  echoS: 10,
  /** s between two levels beyond which they say nothing about how fast it falls */
  guardTrendS: 1,
  /** s that a scale must stand still before a pour is believed */
  steadyS: 1.2,
  /** g within which a scale stands still */
  steadyG: 3,
  /** g; less is a drip from the spout, not a pour */
  leastPourG: 5,
  /** g; a jump beyond it is the can lifted off, not a pour */
  mostPourG: 2500,
  /** s before and after a stop over which levels are averaged, and how long the surface needs to come to rest */
  levelWindowS: 3,
  levelRestS: 6,
  /** ms between looks at a standing level, s after a pour before one counts, and mm within which two of them stand still */
  compareEveryMs: 2000,
  compareAfterS: 3,
  standsWithinMm: 0.5,
} as const;
