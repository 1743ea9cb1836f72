import { Menu, MenuItem } from "../../kit/Menu";
import { useState } from "react";
import { useMutation } from "@tanstack/react-query";
import { orProblem, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { controlLook } from "../../kit/fields";
import { useNotice } from "../../kit/Notice";
import { Failure } from "../../kit/states";
import { api } from "../../api/client";
import { standings, standingWords } from "./standings";

interface Props {
  /** The clients. */
  ids: string[];
  /** What those stood as that are shown, so that it can be taken back. */
  standingOf: (id: string) => Schemas["Standing"] | undefined;
}

/** What can be done with several clients at once. */
export function BulkActions({ ids, standingOf }: Props) {
  const say = useNotice();
  const [tag, setTag] = useState("");
  const put = (changes: Schemas["StandingOf"][]) => orProblem(api.PUT("/api/clients/standing", { body: changes }));
  const stand = useMutation({
    mutationFn: (standing: Schemas["Standing"]) => put(ids.map((client) => ({ client, standing }))),
    onSuccess: (_, standing) => {
      const before = ids.flatMap((client) => {
        const was = standingOf(client);
        return was ? [{ client, standing: was }] : [];
      });
      say({
        words:
          ids.length === 1
            ? `One is ${standingWords[standing]} now.`
            : `${ids.length} are ${standingWords[standing]} now.`,
        // Who was chosen without being shown cannot be put back by a press.
        undo:
          before.length === ids.length
            ? async () => {
                await put(before);
              }
            : undefined,
      });
    },
  });
  const putTags = (clients: string[], add: string[], remove: string[]) =>
    orProblem(api.PUT("/api/clients/tags", { body: { clients, add, remove } }));
  const label = useMutation({
    mutationFn: (word: string) => putTags(ids, [word], []),
    onSuccess: (_, word) => {
      setTag("");
      say({
        words: ids.length === 1 ? `One has the tag “${word}”.` : `${ids.length} have the tag “${word}”.`,
        undo: async () => {
          await putTags(ids, [], [word]);
        },
      });
    },
  });
  return (
    <>
      <Menu label={<>Set the standing</>}>
        {standings.map((one) => (
          <MenuItem key={one} onSelect={() => stand.mutate(one)}>
            {standingWords[one]}
          </MenuItem>
        ))}
      </Menu>
      <form
        className="flex gap-1"
        onSubmit={(e) => {
          e.preventDefault();
          if (tag.trim() && !label.isPending) label.mutate(tag.trim());
        }}
      >
        <input
          aria-label="A tag for all of them"
          placeholder="a tag for all of them"
          className={`${controlLook} w-44`}
          value={tag}
          onChange={(e) => setTag(e.target.value)}
        />
        <Button type="submit" disabled={label.isPending || !tag.trim()}>
          Tag
        </Button>
      </form>
      <Failure error={stand.error ?? label.error} />
    </>
  );
}
