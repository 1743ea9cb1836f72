import { useState, type FormEvent } from "react";
import { useMutation, useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { api } from "../../api/client";
import { findingsOf, orProblem, Problem, type Schemas } from "../../api/problem";
import { useSendKey } from "../../api/useSendKey";
import { Button, buttonLook } from "../../kit/Button";
import { CopyBox } from "../../kit/CopyBox";
import { Dialog, DialogClose } from "../../kit/Dialog";
import { SelectBox, TextBox } from "../../kit/fields";
import { useNotice } from "../../kit/Notice";
import { Failure, Skeleton } from "../../kit/states";
import { FreeTimes, NearestTimes } from "./FreeTimes";

interface Props {
  client: string;
  name: string;
  /** What it is about; null for nothing in particular. */
  inquiry: string | null;
}

/** Books a meeting for a client, or makes the link by which they choose a time themselves. */
export function BookMeeting(props: Props) {
  const [isOpen, setOpen] = useState(false);
  return (
    <Dialog
      open={isOpen}
      onOpenChange={setOpen}
      width="wide"
      trigger={<Button>Book a meeting</Button>}
      title={`A meeting with ${props.name}`}
    >
      <Choose {...props} onDone={() => setOpen(false)} />
    </Dialog>
  );
}

const placeNames: Record<Schemas["MeetingPlaceKind"], string> = {
  phone: "By phone",
  video: "By video",
  ours: "At your place",
  theirs: "At their place",
};

function Choose({ client, name, inquiry, onDone }: Props & { onDone: () => void }) {
  const types = useQuery(ask(["meeting-types"], () => api.GET("/api/meeting-types")));
  const open = types.data?.filter((type) => !type.isArchived);
  const [chosen, setChosen] = useState<string | null>(null);
  const type = chosen ?? open?.[0]?.id;
  if (!open) return types.error ? <Failure error={types.error} /> : <Skeleton rows={4} />;
  if (!type)
    return <p>There is no meeting type yet. Add one under Calendar, so that there are times to choose from.</p>;
  return (
    <div className="grid gap-4">
      <SelectBox label="Which meeting" value={type} onChange={(e) => setChosen(e.target.value)}>
        {open.map((one) => (
          <option key={one.id} value={one.id}>
            {one.name} ({one.summary})
          </option>
        ))}
      </SelectBox>
      <OfType key={type} type={type} client={client} name={name} inquiry={inquiry} onDone={onDone} />
    </div>
  );
}

function OfType({ type, client, name, inquiry, onDone }: Props & { type: string; onDone: () => void }) {
  const notice = useNotice();
  const sendKey = useSendKey();
  const linkKey = useSendKey();
  const shown = useQuery(
    ask(["meeting-type", type], () => api.GET("/api/meeting-types/{id}", { params: { path: { id: type } } })),
  );
  const times = useQuery(
    ask(["meeting-times", type], () => api.GET("/api/meetings/times", { params: { query: { type } } })),
  );
  const places = shown.data?.value.type.places ?? [];
  const [start, setStart] = useState<string | null>(null);
  const [wanted, setWanted] = useState<Schemas["MeetingPlaceKind"] | null>(null);
  const [placeWords, setPlaceWords] = useState("");
  const place = wanted ?? places[0]?.kind ?? "phone";
  const book = useMutation({
    mutationFn: () => {
      const body = { type, client, inquiry, start: start!, place, placeWords };
      return orProblem(api.POST("/api/meetings", { body, headers: sendKey.for(body) }));
    },
    onSuccess: () => {
      sendKey.done();
      notice({ words: `Booked. ${name} gets the time by mail.` });
      onDone();
    },
    onError: (error) => {
      if (!(error instanceof Problem && error.status === 409)) return;
      setStart(null);
      void times.refetch();
    },
  });
  const link = useMutation({
    mutationFn: () => {
      const body = { type, client, inquiry };
      return orProblem(api.POST("/api/meetings/links", { body, headers: linkKey.for(body) }));
    },
    onSuccess: linkKey.done,
  });
  const findings = findingsOf(book.error);
  if (!shown.data || !times.data)
    return (shown.error ?? times.error) ? <Failure error={shown.error ?? times.error} /> : <Skeleton rows={4} />;
  return (
    <form
      noValidate
      className="grid gap-4"
      onSubmit={(event: FormEvent) => {
        event.preventDefault();
        if (start && !book.isPending) book.mutate();
      }}
    >
      <FreeTimes times={times.data} chosen={start} onChoose={setStart} />
      <NearestTimes error={book.error} chosen={start} onChoose={setStart} />
      {places.length > 1 && (
        <SelectBox
          label="Where"
          value={place}
          onChange={(e) => setWanted(e.target.value as Schemas["MeetingPlaceKind"])}
        >
          {places.map((one) => (
            <option key={one.kind} value={one.kind}>
              {placeNames[one.kind]}
            </option>
          ))}
        </SelectBox>
      )}
      {(place === "phone" || place === "theirs") && (
        <TextBox
          label={place === "phone" ? "Their number" : "Their address"}
          value={placeWords}
          error={findings.get("placeWords")}
          onChange={(e) => setPlaceWords(e.target.value)}
        />
      )}
      {findings.size === 0 && !(book.error instanceof Problem && book.error.nearest.length > 0) && (
        <Failure error={book.error} />
      )}
      <span className="flex flex-wrap gap-2">
        <Button weight="main" type="submit" disabled={!start || book.isPending}>
          Book it
        </Button>
        <Button disabled={link.isPending} onClick={() => link.mutate()}>
          Let them choose
        </Button>
        <DialogClose className={buttonLook("quiet")}>Cancel</DialogClose>
      </span>
      <Failure error={link.error} />
      {link.data && (
        <CopyBox
          label="Their link"
          help={`Only for ${name}: they choose a time without saying who they are. Set it into a message.`}
          text={link.data.link}
          rows={1}
        />
      )}
    </form>
  );
}
