import { createRoot } from "react-dom/client";
import { PublicFormPage } from "./PublicFormPage";
import "./public.css";

const token = location.pathname.split("/")[2] ?? "";
createRoot(document.getElementById("root")!).render(<PublicFormPage token={token} />);
