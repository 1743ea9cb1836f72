import type { ReactNode } from "react";
import { Button } from "../../kit/Button";
import { CheckBox, SelectBox, TextBox } from "../../kit/fields";
import { ConditionSentence } from "../conditions/ConditionSentence";
import { SchedulePicker } from "./SchedulePicker";
import { kindNames, kindOf, stepKinds } from "./steps/stepKinds";
import { subjectsOf } from "./subjectsOf";
import { withStep, type Choices, type Edited, type Step, type StepAction, type View } from "./useFollowThrough";

interface Props {
  edited: Edited;
  step: Step;
  view: View;
  choices: Choices;
  onClose: () => void;
}

/** One step in full: what it does, when, on what, and whether somebody looks first. */
export function StepDesk({ edited, step, view, choices, onClose }: Props) {
  const { content, step: change } = edited;
  const index = content.steps.findIndex((one) => one.key === step.key);
  const isLast = index < 0;
  const later = isLast ? [] : content.steps.slice(index + 1);
  const set = (next: Step, member: string) => change((now) => withStep(now, next), `step ${step.key} ${member}`);
  const remove = () => {
    onClose();
    change(
      (now) => ({
        ...now,
        steps: now.steps.filter((one) => one.key !== step.key),
        stops: now.stops.map((stop) => (stop.last?.key === step.key ? { ...stop, last: null } : stop)),
      }),
      `step ${step.key} away`,
    );
  };
  const findings = view.findings.filter((one) => one.place === step.key);
  const { Fields, flow } = kindOf(step.action);
  const offered = isLast ? kindNames.filter((kind) => !stepKinds[kind].flow) : kindNames;
  return (
    <div className="grid gap-4">
      <div className="flex items-start justify-between gap-3">
        <h2 className="text-lead">{step.name || "A new step"}</h2>
        <Button onClick={onClose}>Done</Button>
      </div>
      {findings.map((one) => (
        <p key={one.sentence} role="alert" className="border-l-4 border-brick pl-3 font-semibold text-brick">
          {one.sentence}
        </p>
      ))}
      <TextBox
        label="What you call it"
        value={step.name}
        onChange={(e) => set({ ...step, name: e.target.value }, "name")}
      />
      <SelectBox
        label="What it does"
        value={step.action.kind}
        onChange={(e) => {
          const kind = e.target.value as StepAction["kind"];
          set({ ...step, action: stepKinds[kind].begin(choices) }, "kind");
        }}
      >
        {offered.map((kind) => (
          <option key={kind} value={kind}>
            {stepKinds[kind].label}
          </option>
        ))}
      </SelectBox>
      <Fields
        value={step.action}
        choices={choices}
        isAboutUnfinishedForm={content.starts.kind === "leftUnfinished"}
        later={later}
        onChange={(action) => set({ ...step, action }, "action")}
      />
      <Part title={flow === "waits" ? "Longest wait" : "When"}>
        <SchedulePicker
          schedule={step.schedule}
          isFirst={index === 0}
          isWait={flow === "waits"}
          isFlow={!!flow}
          dates={choices.dates}
          onChange={(schedule) => set({ ...step, schedule }, "schedule")}
        />
      </Part>
      {!flow && (
        <Part title="Who acts">
          <CheckBox
            label="It waits for your nod before it goes out"
            help={
              step.needsNod
                ? `Without a nod it lapses after ${content.lapseAfterDays} days, and the next steps continue.`
                : "Done automatically."
            }
            checked={step.needsNod}
            onChange={(needsNod) => set({ ...step, needsNod }, "nod")}
          />
        </Part>
      )}
      <Part title="Only if">
        <ConditionSentence
          value={step.condition}
          onChange={(condition) => set({ ...step, condition }, "condition")}
          subjects={subjectsOf(choices)}
          without="Always done."
          begin="Do it only if …"
          label="Only done if"
        />
      </Part>
      <p>
        <Button weight="quiet" className="-ml-3" onClick={remove}>
          Delete this step
        </Button>
      </p>
    </div>
  );
}

const Part = ({ title, children }: { title: string; children: ReactNode }) => (
  <section aria-label={title}>
    <h3 className="mb-1 font-body font-semibold">{title}</h3>
    {children}
  </section>
);
