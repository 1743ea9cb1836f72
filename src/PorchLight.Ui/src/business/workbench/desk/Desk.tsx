import { find, type PlacedItem } from "../form";
import { useWorkbench } from "../workbenchContext";
import { ContentDesk } from "./ContentDesk";
import { FormDesk } from "./FormDesk";
import { LookDesk } from "./LookDesk";
import { PageDesk } from "./PageDesk";
import { QuestionDesk } from "./QuestionDesk";
import { SendOffDesk } from "./SendOffDesk";

/** The chosen thing in full. */
export function Desk() {
  const { form, at } = useWorkbench();
  const chosen = find(form, at);
  switch (chosen.what) {
    case "look":
      return <LookDesk />;
    case "page":
      return <PageDesk key={at} page={chosen.page} number={chosen.number} />;
    case "cell":
      return <QuestionDesk key={at} question={chosen.cell} rows={chosen.of} />;
    case "sendOff":
      return <SendOffDesk key={at} sendOff={chosen.sendOff} isDefault={chosen.isDefault} />;
    case "item":
      return chosen.item.item === "question" ? (
        <QuestionDesk key={at} question={chosen.item} />
      ) : (
        <ContentDesk key={at} item={chosen.item as Exclude<PlacedItem, { item: "question" }>} />
      );
    default:
      return <FormDesk key={at} />;
  }
}
