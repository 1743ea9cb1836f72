import { ArrowDownUp } from "lucide-react";
import { controlLook } from "./fields";

interface Props {
  order: string;
  /** Each order with its words. */
  orders: readonly (readonly [order: string, words: string])[];
  backwards: boolean;
  onOrder: (order: string) => void;
  onTurn: () => void;
}

/** The order of a list, and a button that reverses it. */
export function OrderBox({ order, orders, backwards, onOrder, onTurn }: Props) {
  return (
    <span className="inline-flex items-center">
      <select aria-label="Sort by" className={controlLook} value={order} onChange={(e) => onOrder(e.target.value)}>
        {orders.map(([key, words]) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
      </select>
      <button
        type="button"
        aria-label="Reverse the order"
        aria-pressed={backwards}
        className="rounded-soft p-2 text-slate hover:text-ink"
        onClick={onTurn}
      >
        <ArrowDownUp size={16} aria-hidden />
      </button>
    </span>
  );
}
