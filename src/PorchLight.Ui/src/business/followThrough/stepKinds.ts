import { newKey } from "../../kit/newKey";
import type { Choices, Step, StepAction } from "./useFollowThrough";

/** What a step can do, in the order in which it is offered. */
export const stepKinds: [StepAction["kind"], string][] = [
  ["sendMessage", "Send a message"],
  ["makeTask", "Make a task"],
  ["moveStage", "Move the stage"],
  ["setField", "Set a field"],
  ["handOver", "Hand over to a colleague"],
  ["tellTeam", "Tell someone by mail"],
  ["postToChat", "Post to the team chat"],
  ["callWebhook", "Call a webhook"],
  ["startAnother", "Start another follow-through"],
  ["waitFor", "Wait until something happens"],
  ["branch", "Go one way or another"],
  ["end", "End here"],
  ["unwritten", "Note what is still to be written"],
];

/** Whether it decides how the run goes on, and does nothing that anybody could nod to. */
export const isFlow = (action: StepAction) => ["waitFor", "branch", "end"].includes(action.kind);

const noId = "00000000-0000-0000-0000-000000000000";

/** A step of a kind with nothing said yet. */
export function beginAction(kind: StepAction["kind"], choices: Choices): StepAction {
  switch (kind) {
    case "sendMessage":
      return {
        kind,
        channel: "mail",
        isAdvertising: false,
        message: {
          subject: "",
          parts: [{ kind: "text", key: "text", text: "Dear {firstName},\n\n\n\nWarmly\n{owner}\n{business}" }],
        },
      };
    case "makeTask":
      return { kind, title: "", dueAfterWorkingDays: 1, for: null };
    case "moveStage":
      return { kind, stage: choices.stages[0]?.key ?? "", parkedDays: null };
    case "setField":
      return { kind, field: choices.dates[0]?.key ?? "", value: null };
    case "handOver":
      return { kind, to: choices.people[0]?.key ?? "", keepWatching: false };
    case "tellTeam":
      return { kind, users: [], outside: null, subject: "", text: "" };
    case "postToChat":
      return { kind, text: "" };
    case "callWebhook":
      return { kind, webhook: choices.webhooks[0]?.key ?? noId };
    case "startAnother":
      return { kind, followThrough: choices.others[0]?.key ?? noId };
    case "waitFor":
      return { kind, on: { kind: "replied" }, otherwise: null };
    case "branch":
      return { kind, if: { kind: "all", parts: [] }, then: null, otherwise: null };
    case "end":
      return { kind };
    case "unwritten":
      return { kind, what: "" };
  }
}

export const beginStep = (kind: StepAction["kind"], choices: Choices, isFirst: boolean): Step => ({
  key: newKey().slice(0, 8),
  name: "",
  action: beginAction(kind, choices),
  schedule: {
    anchor: { kind: isFirst ? "runStart" : "previousSettled" },
    amount: isFirst || kind === "branch" || kind === "end" ? 0 : 3,
    unit: "days",
    atOnce: false,
  },
  needsNod: kind === "sendMessage",
});
