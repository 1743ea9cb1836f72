import type { StepAction } from "../useFollowThrough";
import { branch } from "./branch";
import { callWebhook } from "./callWebhook";
import { end } from "./end";
import { handOver } from "./handOver";
import { makeTask } from "./makeTask";
import { moveStage } from "./moveStage";
import { postToChat } from "./postToChat";
import { sendMessage } from "./sendMessage";
import { fillField } from "./fillField";
import { startAnother } from "./startAnother";
import { tellTeam } from "./tellTeam";
import { unwritten } from "./unwritten";
import { waitFor } from "./waitFor";
import type { StepKind } from "./stepKind";

/** All kinds of steps, in the order in which they are offered. */
export const stepKinds: { [K in StepAction["kind"]]: StepKind<K> } = {
  sendMessage,
  makeTask,
  moveStage,
  fillField,
  handOver,
  tellTeam,
  postToChat,
  callWebhook,
  startAnother,
  waitFor,
  branch,
  end,
  unwritten,
};

/** The kind of a step. What it is hangs on the step it is asked for; the compiler cannot see that. */
export const kindOf = (action: StepAction) => stepKinds[action.kind] as StepKind<StepAction["kind"]>;

/** Their names, in that order. */
export const kindNames = Object.keys(stepKinds) as StepAction["kind"][];
