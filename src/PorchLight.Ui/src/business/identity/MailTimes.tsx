import { TimeBox } from "../../kit/DayBox";
import { Page } from "../../kit/Page";
import { useQuery } from "@tanstack/react-query";
import { askOnce } from "../../api/ask";
import { orProblem, type Schemas } from "../../api/problem";
import { CheckBox, SelectBox } from "../../kit/fields";
import { Failure, Skeleton } from "../../kit/states";
import { api } from "../../api/client";
import { SavedForm } from "../saving/SavedForm";
import { useEdit } from "../saving/useEdit";
import { useTitle } from "../shell/useTitle";

type Times = Schemas["NotificationTime"];

/** When this person gets mails about inquiries. */
export function MailTimes() {
  useTitle("When you get mails");
  const times = useQuery({
    ...askOnce(["notification-times"], () => api.GET("/api/me/notifications")),
    refetchOnMount: "always",
  });
  return (
    <Page title="When you get mails">
      <Failure error={times.error} />
      {times.isFetchedAfterMount && times.data ? <Fields start={times.data} /> : !times.error && <Skeleton rows={3} />}
    </Page>
  );
}

function Fields({ start }: { start: Times }) {
  const edit = useEdit(start, (body) => orProblem(api.PUT("/api/me/notifications", { body })));
  const { now } = edit;
  return (
    <SavedForm edit={edit} nameOf={(place) => place}>
      <div className="grid max-w-md gap-4">
        <p className="text-slate">About inquiries from forms that name you under “Who gets a mail”, from now on.</p>
        <SelectBox
          label="A mail comes"
          value={now.dailyAt ? "daily" : "atOnce"}
          onChange={(e) => edit.change({ dailyAt: e.target.value === "daily" ? "08:00:00" : null })}
        >
          <option value="atOnce">for every inquiry, at once</option>
          <option value="daily">once a day, about all of them</option>
        </SelectBox>
        {now.dailyAt ? (
          <TimeBox
            label="At this time"
            value={now.dailyAt.slice(0, 5)}
            onChange={(time) => time && edit.change({ dailyAt: `${time}:00` })}
          />
        ) : (
          <CheckBox
            label="At night, too"
            help="Otherwise anything between 21:00 and 07:00 waits until 07:00."
            checked={now.atNight}
            onChange={(atNight) => edit.change({ atNight })}
          />
        )}
      </div>
    </SavedForm>
  );
}
