import { useQuery, useQueryClient } from "@tanstack/react-query";
import { lazy, Suspense, useEffect } from "react";
import { Navigate, Outlet, Route, Routes } from "react-router";
import { askAnew } from "../api/askAnew";
import { me } from "../api/queries";
import { setOwner } from "../domain/device/owner";
import { onTaken, start as startOutbox } from "../domain/outbox/outbox";
import { releaseWhatIsTaken } from "../domain/outbox/release";
import { Bench } from "../features/bench/Bench";
import { Library } from "../features/library/Library";
import { LogBook } from "../features/log/LogBook";
import { Today } from "../features/today/Today";
import { Confirm, Forgot, Reset } from "../features/welcome/Forgot";
import { Join } from "../features/welcome/Join";
import { Mailbox } from "../features/welcome/Mailbox";
import { SetUp } from "../features/welcome/SetUp";
import { Welcome } from "../features/welcome/Welcome";
import { Within } from "../features/welcome/Within";
import { Notice } from "../ui/Notice";
import { useTrains } from "../ui/useTrains";
import { Spine } from "./Spine";

const Floor = lazy(() => import("../features/floor/Floor").then((module) => ({ default: module.Floor })));
const Screens = lazy(() => import("../features/floor/Follow").then((module) => ({ default: module.Screens })));
const Screen = lazy(() => import("../features/floor/Follow").then((module) => ({ default: module.Screen })));
const Method = lazy(() => import("../features/method/Method").then((module) => ({ default: module.Method })));
const Schools = lazy(() => import("../features/library/Schools").then((module) => ({ default: module.Schools })));
const Book = lazy(() => import("../features/book/Book").then((module) => ({ default: module.Book })));
const Logged = lazy(() => import("../features/log/Logged").then((module) => ({ default: module.Logged })));
const Roster = lazy(() => import("../features/roster/Roster").then((module) => ({ default: module.Roster })));
const TestFloor = lazy(() => import("../features/roster/TestFloor").then((module) => ({ default: module.TestFloor })));
const ClubPage = lazy(() => import("../features/club/Club").then((module) => ({ default: module.Club })));
const Account = lazy(() => import("../features/account/Account").then((module) => ({ default: module.Account })));
const Trends = lazy(() => import("../features/trends/Trends").then((module) => ({ default: module.Trends })));
const Camps = lazy(() => import("../features/camp/Camps").then((module) => ({ default: module.Camps })));
const CampPage = lazy(() => import("../features/camp/CampPage").then((module) => ({ default: module.CampPage })));
const Classes = lazy(() => import("../features/classes/Classes").then((module) => ({ default: module.Classes })));
const ClassPage = lazy(() => import("../features/classes/ClassPage").then((module) => ({ default: module.ClassPage })));
const LogEntry = lazy(() => import("../features/log/LogEntry").then((module) => ({ default: module.LogEntry })));

function Club() {
  return (
    <div className="min-h-dvh pb-[58px] min-[900px]:pb-0 min-[900px]:pl-[68px]">
      <Spine />
      <Outlet />
    </div>
  );
}

/** What is for those who train people. */
function Training() {
  if (useTrains()) return <Outlet />;
  return <Notice title="This is for coaches" text="An assistant runs sessions from the library, and logs them." />;
}

export function App() {
  const client = useQueryClient();
  const welcome = useQuery(me);
  const { coach_id, club_id } = welcome.data ?? {};
  const owner = coach_id != null && club_id != null ? { coach: coach_id, club: club_id } : null;
  // Before anything is drawn that asks whose the things on this device are.
  setOwner(owner);
  const who = owner && `${owner.club} ${owner.coach}`;
  useEffect(() => {
    if (!who) return;
    // Whatever the server takes changes the log, and what is due in the library, also before either was drawn.
    const taken = () => {
      for (const queryKey of [["log"], ["sessions"], ["today"]]) void askAnew(client, { queryKey });
    };
    const stops = [releaseWhatIsTaken(), onTaken(taken), startOutbox()];
    return () => {
      for (const stop of stops) stop();
    };
  }, [who, client]);
  if (!welcome.data) {
    return <Notice asked={welcome} title="Opening the hall" />;
  }
  if (!welcome.data.signed_in) {
    return (
      <Routes>
        <Route path="join/:code" element={<Join />} />
        <Route path="forgot" element={<Forgot />} />
        <Route path="reset/:key" element={<Reset />} />
        <Route path="confirm/:key" element={<Confirm />} />
        <Route path="mailbox" element={<Mailbox />} />
        <Route path="*" element={welcome.data.fresh ? <SetUp /> : <Welcome demo={welcome.data.demo} />} />
      </Routes>
    );
  }
  return (
    <Suspense fallback={<Notice waiting title="Opening" />}>
      <Routes>
        <Route path="floor/:sessionId" element={<Floor />} />
        <Route element={<Training />}>
          <Route path="roster/:personId/test/:kind" element={<TestFloor />} />
        </Route>
        <Route path="screen" element={<Screens />} />
        <Route path="screen/:runId" element={<Screen />} />
        <Route element={<Club />}>
          <Route index element={<Navigate to="/today" replace />} />
          <Route path="today" element={<Today />} />
          <Route path="library" element={<Library />} />
          <Route path="library/schools" element={<Schools />} />
          <Route element={<Training />}>
            <Route path="book" element={<Book />} />
            <Route path="bench" element={<Bench />} />
            <Route path="bench/:sessionId" element={<Bench />} />
            <Route path="log/trends" element={<Trends />} />
            <Route path="camp" element={<Camps />} />
            <Route path="camp/:campId" element={<CampPage />} />
            <Route path="class" element={<Classes />} />
            <Route path="class/:classId" element={<ClassPage />} />
            <Route path="roster" element={<Roster />} />
            <Route path="roster/:personId" element={<Roster />} />
          </Route>
          <Route path="log" element={<LogBook />} />
          <Route path="log/run" element={<LogEntry />} />
          <Route path="log/:entryId" element={<Logged />} />
          <Route path="club" element={<ClubPage />} />
          <Route path="account" element={<Account />} />
          <Route path="mailbox" element={<Mailbox />} />
          <Route path="confirm/:key" element={<Confirm />} />
          <Route path="reset/:key" element={<Reset />} />
          <Route path="forgot" element={<Forgot />} />
          <Route path="join/:code" element={<Within />} />
          <Route path="method" element={<Method />} />
          <Route path="*" element={<Notice title="There is no such page" text="Choose a place in the bar." />} />
        </Route>
      </Routes>
    </Suspense>
  );
}
