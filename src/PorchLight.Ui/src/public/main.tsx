import { createRoot } from "react-dom/client";
import { Porch } from "./Porch";
import "./public.css";

const token = location.pathname.split("/")[2] ?? "";
createRoot(document.getElementById("root")!).render(<Porch token={token} />);
