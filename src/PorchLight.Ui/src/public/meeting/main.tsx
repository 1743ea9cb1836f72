import { createRoot } from "react-dom/client";
import { MeetingPage } from "./MeetingPage";
import "../public.css";

const token = location.pathname.split("/")[2] ?? "";
createRoot(document.getElementById("root")!).render(<MeetingPage token={token} />);
