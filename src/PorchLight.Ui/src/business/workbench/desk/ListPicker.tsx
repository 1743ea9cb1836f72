import { useQuery } from "@tanstack/react-query";
import { ask } from "../../../api/ask";
import { Link } from "react-router";
import { CheckBox, SelectBox } from "../../../kit/fields";
import { Failure } from "../../../kit/states";
import { api } from "../../../api/client";
import type { KindNamed } from "../form";
import { Members } from "./Members";

const none = "00000000-0000-0000-0000-000000000000";

interface Props {
  kind: KindNamed<"lookUp">;
  onChange: (part: Partial<KindNamed<"lookUp">>) => void;
}

/** Which of the business's lists something is looked up in, and which of its columns people see. */
export function ListPicker({ kind, onChange }: Props) {
  const lists = useQuery(ask(["lists"], () => api.GET("/api/lists")));
  const list = lists.data?.find((one) => one.id === kind.list);
  return (
    <>
      <Failure error={lists.error} />
      <Members
        of="QuestionKindLookUpKind"
        fields={{
          list: (
            <SelectBox
              label="The list"
              value={kind.list}
              onChange={(e) =>
                onChange({
                  list: e.target.value,
                  show: lists.data?.find((one) => one.id === e.target.value)?.columns.slice(0, 2) ?? [],
                })
              }
            >
              {!list && <option value={kind.list}>{kind.list === none ? "choose …" : "a deleted list"}</option>}
              {lists.data?.map((one) => (
                <option key={one.id} value={one.id}>
                  {one.name} ({one.lines})
                </option>
              ))}
            </SelectBox>
          ),
          show: list ? (
            <fieldset>
              <legend className="font-semibold">Columns people see</legend>
              {list.columns.map((column) => (
                <CheckBox
                  key={column}
                  label={column}
                  checked={kind.show.includes(column)}
                  onChange={(on) =>
                    onChange({ show: list.columns.filter((one) => (one === column ? on : kind.show.includes(one))) })
                  }
                />
              ))}
            </fieldset>
          ) : (
            <p>
              <Link to="/files" className="underline">
                Your files and lists
              </Link>
            </p>
          ),
        }}
      />
    </>
  );
}
