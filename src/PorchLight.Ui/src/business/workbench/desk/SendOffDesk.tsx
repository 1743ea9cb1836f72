import { useQuery } from "@tanstack/react-query";
import { ask } from "../../../api/ask";
import { api } from "../../../api/client";
import { CheckBox, SelectBox, TextBox } from "../../../kit/fields";
import { Button } from "../../../kit/Button";
import { ConditionEditor } from "../conditions/ConditionEditor";
import { changeSendOff, type SendOff } from "../form";
import { useWorkbench } from "../workbenchContext";
import { FilePicker } from "./FilePicker";
import { KnownTextBox } from "./KnownTextBox";
import { Members } from "./Members";
import { Part, Sheet } from "./Sheet";

/** How a form ends for some, or for everybody else. */
export function SendOffDesk({ sendOff, isDefault }: { sendOff: SendOff; isDefault: boolean }) {
  const { edit } = useWorkbench();
  const { key } = sendOff;
  const change = (part: Partial<SendOff>, member: string) =>
    edit((form) => changeSendOff(form, key, part), `${key}.${member}`);
  const ways = sendOff.waysForward ?? [];
  const setWay = (index: number, part: object) =>
    change({ waysForward: ways.map((way, at) => (at === index ? { ...way, ...part } : way)) }, `waysForward.${index}`);
  return (
    <Sheet title={isDefault ? "The send-off for everyone else" : "A send-off"} place={key}>
      <Members
        of="SendOff"
        fields={{
          title: (
            <KnownTextBox
              label="Headline"
              look="font-head text-lead"
              value={sendOff.title}
              onChange={(title) => change({ title }, "title")}
              place={key}
              atTheEnd
            />
          ),
          text: (
            <KnownTextBox
              label="What it says"
              lines="several"
              value={sendOff.text}
              onChange={(text) => change({ text }, "text")}
              place={key}
              atTheEnd
            />
          ),
          when: isDefault ? (
            <p className="text-slate">Used when no other applies.</p>
          ) : (
            <Part title="Who it is for">
              <ConditionEditor
                value={sendOff.when}
                onChange={(when) => change({ when }, "when")}
                place={{ at: "sendOff" }}
                without="Only for people a page leads here."
                begin="Use it when …"
                label="Used when"
              />
            </Part>
          ),
          nextSteps: (
            <KnownTextBox
              label="What happens next"
              help="One step a line."
              lines="several"
              value={(sendOff.nextSteps ?? []).join("\n")}
              onChange={(steps) => change({ nextSteps: steps === "" ? [] : steps.split("\n") }, "nextSteps")}
              place={key}
              atTheEnd
            />
          ),
          offersCall: (
            <CheckBox
              label="They can ask for a call"
              checked={sendOff.offersCall ?? false}
              onChange={(offersCall) => change({ offersCall }, "offersCall")}
            />
          ),
          meeting: (
            <MeetingChoice value={sendOff.meeting ?? null} onChange={(meeting) => change({ meeting }, "meeting")} />
          ),
          turnsAway: (
            <CheckBox
              label="It is a kind no"
              help="You then owe them no other reply."
              checked={sendOff.turnsAway ?? false}
              onChange={(turnsAway) => change({ turnsAway }, "turnsAway")}
            />
          ),
          saysAwayNote: (
            <CheckBox
              label="While you are away it says your message while closed, too"
              checked={sendOff.saysAwayNote ?? false}
              onChange={(saysAwayNote) => change({ saysAwayNote }, "saysAwayNote")}
            />
          ),
          waysForward: (
            <Part title="Other ways forward">
              <ul className="grid gap-3">
                {ways.map((way, index) => (
                  <li key={index} className="border-l-2 border-edge pl-3">
                    <Members
                      of="WayForward"
                      half={["title", "address"]}
                      fields={{
                        title: (
                          <TextBox
                            label="What it is"
                            value={way.title}
                            onChange={(e) => setWay(index, { title: e.target.value })}
                          />
                        ),
                        address: (
                          <TextBox
                            label="Web address"
                            placeholder="https://"
                            value={way.address ?? ""}
                            onChange={(e) => setWay(index, { address: e.target.value || null })}
                          />
                        ),
                        text: (
                          <TextBox
                            label="Why it may help"
                            value={way.text}
                            onChange={(e) => setWay(index, { text: e.target.value })}
                          />
                        ),
                      }}
                    />
                    <Button
                      weight="quiet"
                      className="-ml-3"
                      onClick={() => change({ waysForward: ways.filter((one) => one !== way) }, "waysForward")}
                    >
                      Remove this one
                    </Button>
                  </li>
                ))}
              </ul>
              <Button
                weight="quiet"
                className="-ml-3"
                onClick={() =>
                  change({ waysForward: [...ways, { title: "", text: "", address: null }] }, "waysForward")
                }
              >
                Another way forward
              </Button>
            </Part>
          ),
          button: sendOff.button ? (
            <Part title="A button that leads on">
              <Members
                of="LinkButton"
                half={["label", "address"]}
                fields={{
                  label: (
                    <TextBox
                      label="What it says"
                      value={sendOff.button.label}
                      onChange={(e) => change({ button: { ...sendOff.button!, label: e.target.value } }, "button")}
                    />
                  ),
                  address: (
                    <TextBox
                      label="Web address"
                      placeholder="https://"
                      value={sendOff.button.address}
                      onChange={(e) => change({ button: { ...sendOff.button!, address: e.target.value } }, "button")}
                    />
                  ),
                }}
              />
              <Button weight="quiet" className="-ml-3" onClick={() => change({ button: null }, "button")}>
                Remove the button
              </Button>
            </Part>
          ) : (
            <Button onClick={() => change({ button: { label: "", address: "" } }, "button")}>
              A button that leads on
            </Button>
          ),
          video: (
            <FilePicker
              label="A video"
              groups={["film"]}
              value={sendOff.video ?? null}
              onChange={(video) => change({ video }, "video")}
            />
          ),
          download: (
            <>
              <FilePicker
                label="A file to take away"
                groups={[]}
                value={sendOff.download?.file ?? null}
                onChange={(file) =>
                  change({ download: file ? { label: sendOff.download?.label ?? "", file } : null }, "download")
                }
              />
              {sendOff.download && (
                <Members
                  of="FileLink"
                  fields={{
                    file: elsewhereOn,
                    label: (
                      <TextBox
                        label="What the link says"
                        value={sendOff.download.label}
                        onChange={(e) =>
                          change({ download: { ...sendOff.download!, label: e.target.value } }, "download")
                        }
                      />
                    ),
                  }}
                />
              )}
            </>
          ),
          redirect: (
            <TextBox
              label="Where the browser goes next"
              placeholder="nowhere"
              value={sendOff.redirect ?? ""}
              onChange={(e) => change({ redirect: e.target.value || null }, "redirect")}
            />
          ),
        }}
      />
    </Sheet>
  );
}

/** Whose free times are shown, so that a good lead books at once. */
function MeetingChoice({ value, onChange }: { value: string | null; onChange: (type: string | null) => void }) {
  const types = useQuery(ask(["meeting-types"], () => api.GET("/api/meeting-types")));
  const open = types.data?.filter((type) => !type.isArchived || type.id === value) ?? [];
  return (
    <SelectBox
      label="Shows free times of"
      help="They book without saying again who they are."
      value={value ?? ""}
      onChange={(e) => onChange(e.target.value || null)}
    >
      <option value="">no meeting</option>
      {value && types.data && open.every((type) => type.id !== value) && (
        <option value={value}>a meeting type that is not here any more</option>
      )}
      {open.map((type) => (
        <option key={type.id} value={type.id}>
          {type.name}
        </option>
      ))}
    </SelectBox>
  );
}

/** The file is chosen in the picker above. */
const elsewhereOn = <></>;
