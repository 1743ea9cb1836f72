import "@fontsource-variable/atkinson-hyperlegible-next";
import "@fontsource-variable/bricolage-grotesque";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { createRoot } from "react-dom/client";
import { createBrowserRouter, RouterProvider } from "react-router";
import { Problem } from "../../api/problem";
import "./business.css";
import { EditForm } from "../forms/EditForm";
import { FormList } from "../forms/FormList";
import { NewForm } from "../forms/NewForm";
import { CalendarPage } from "../calendar/CalendarPage";
import { HoursPage } from "../calendar/HoursPage";
import { MeetingPanel } from "../calendar/MeetingPanel";
import { MeetingTypeList } from "../calendar/MeetingTypeList";
import { MeetingTypePage } from "../calendar/MeetingTypePage";
import { MessageList } from "../library/MessageList";
import { BuiltInPage } from "../library/BuiltInPage";
import { MessagePage } from "../library/MessagePage";
import { FilesAndLists } from "../library/FilesAndLists";
import { FollowThroughList } from "../followThrough/FollowThroughList";
import { FollowThroughPage } from "../followThrough/FollowThroughPage";
import { NodPanel } from "../followThrough/NodPanel";
import { AppShell } from "./AppShell";
import { BrokenPage } from "./BrokenPage";
import { NothingHere } from "../shell/NothingHere";
import { JoinPage } from "../identity/JoinPage";
import { MailTimes } from "../identity/MailTimes";
import { PasswordPage } from "../identity/PasswordPage";
import { InquiryList } from "../inquiries/InquiryList";
import { InquiryPanel } from "../inquiries/InquiryPanel";
import { StuckMail } from "../mail/StuckMail";
import { MailList } from "../practice/MailList";
import { MailPanel } from "../practice/MailPanel";
import { PracticeCalendar } from "../practice/PracticeCalendar";
import { PracticeTexts } from "../practice/PracticeTexts";
import { TeamChat } from "../practice/TeamChat";
import { ClientList } from "../clients/ClientList";
import { ImportClients } from "../clients/ImportClients";
import { MergePanel } from "../clients/MergePanel";
import { PerhapsSame } from "../clients/PerhapsSame";
import { ClientPanel } from "../clients/ClientPanel";
import { ProjectPanel } from "../clients/ProjectPanel";
import { Settings } from "../settings/Settings";
import { Today } from "../today/Today";

const queries = new QueryClient({
  defaultOptions: {
    queries: {
      retry: (count, error) => count < 2 && !(error instanceof Problem && error.status !== 0),
      staleTime: 5_000,
      // Whoever is cut off hears so, and need not wait for what never begins.
      networkMode: "always",
    },
    mutations: { networkMode: "always" },
  },
});

const router = createBrowserRouter([
  { path: "/join/:token", element: <JoinPage /> },
  {
    element: <AppShell />,
    errorElement: <BrokenPage />,
    children: [
      {
        element: <Today />,
        children: [
          { path: "/", element: null },
          { path: "/nods/:runId/:step", element: <NodPanel /> },
          { path: "/mail/:id", element: <StuckMail /> },
        ],
      },
      { path: "/forms", element: <FormList /> },
      { path: "/forms/new", element: <NewForm /> },
      { path: "/forms/:id/:section?", element: <EditForm /> },
      { path: "/library", element: <MessageList /> },
      { path: "/library/by-itself/:kind", element: <BuiltInPage /> },
      { path: "/library/:id", element: <MessagePage /> },
      { path: "/files", element: <FilesAndLists /> },
      { path: "/inquiries", element: <InquiryList />, children: [{ path: ":id", element: <InquiryPanel /> }] },
      { path: "/clients/import/:id?", element: <ImportClients /> },
      {
        path: "/clients",
        element: <ClientList />,
        children: [
          { path: "perhaps-the-same", element: <PerhapsSame /> },
          { path: ":id", element: <ClientPanel /> },
          { path: ":id/projects/:project", element: <ProjectPanel /> },
          { path: ":id/beside/:other", element: <MergePanel /> },
        ],
      },
      { path: "/follow-through", element: <FollowThroughList /> },
      { path: "/follow-through/:id/:part?", element: <FollowThroughPage /> },
      { path: "/calendar/types", element: <MeetingTypeList /> },
      { path: "/calendar/types/:id", element: <MeetingTypePage /> },
      { path: "/calendar/hours", element: <HoursPage /> },
      { path: "/calendar", element: <CalendarPage />, children: [{ path: ":id", element: <MeetingPanel /> }] },
      { path: "/practice-mail", element: <MailList />, children: [{ path: ":id", element: <MailPanel /> }] },
      { path: "/practice-texts", element: <PracticeTexts /> },
      { path: "/practice-calendar", element: <PracticeCalendar /> },
      { path: "/practice-chat", element: <TeamChat /> },
      { path: "/settings/:section?/:view?", element: <Settings /> },
      { path: "/mails", element: <MailTimes /> },
      { path: "/password", element: <PasswordPage /> },
      { path: "*", element: <NothingHere /> },
    ],
  },
]);

createRoot(document.getElementById("root")!).render(
  <QueryClientProvider client={queries}>
    <RouterProvider router={router} />
  </QueryClientProvider>,
);
