import { inquiry } from "./inquiry";
import { leftUnfinished } from "./leftUnfinished";
import { projectDate } from "./projectDate";
import { stage } from "./stage";
import type { StartKind, StartOn } from "./startKind";
import { yearlyDate } from "./yearlyDate";

/** All ways to start, in the order in which they are offered. */
export const startKinds: { [K in StartOn["kind"]]: StartKind<K> } = {
  inquiry,
  stage,
  booked: { label: "they book a meeting", begin: () => ({ kind: "booked" }) },
  meetingMoved: { label: "a meeting is moved", begin: () => ({ kind: "meetingMoved" }) },
  meetingCancelled: { label: "a meeting is cancelled", begin: () => ({ kind: "meetingCancelled" }) },
  meetingMissed: { label: "they do not come to a meeting", begin: () => ({ kind: "meetingMissed" }) },
  replied: { label: "they reply", begin: () => ({ kind: "replied" }) },
  leftUnfinished,
  projectDate,
  yearlyDate,
  byHand: { label: "someone starts it by hand", begin: () => ({ kind: "byHand" }) },
};

/** The kind of a start. What it is hangs on the start it is asked for; the compiler cannot see that. */
export const kindOf = (start: StartOn) => startKinds[start.kind] as StartKind<StartOn["kind"]>;

/** Their names, in that order. */
export const startNames = Object.keys(startKinds) as StartOn["kind"][];
