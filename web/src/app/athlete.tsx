import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { setOwner } from "../domain/device/owner";
import { Athlete } from "../features/floor/athlete/Athlete";
import { keepThisPage } from "../features/floor/athlete/offline";
import "./app.css";

// What is kept here is nobody's who signs in on this device.
setOwner({ coach: 0, club: 0 });
const root = document.getElementById("root");
if (!root) throw new Error("The page has no root.");
createRoot(root).render(
  <StrictMode>
    <Athlete token={location.pathname.split("/").at(-1) ?? ""} />
  </StrictMode>,
);
void keepThisPage();
