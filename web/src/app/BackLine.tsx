import { useEffect } from "react";
import { Link, useLocation } from "react-router";
import { forgetBack, useBack } from "../parts/back";

/** Leads back to the page from which somebody came to do something first. */
export function BackLine() {
  const back = useBack();
  const { pathname } = useLocation();
  const there = back?.to.split("?")[0] === pathname;
  useEffect(() => {
    if (there) forgetBack();
  }, [there]);
  if (!back || there) return null;
  return (
    <Link className="btn btn-outline-primary d-print-none" to={back.to}>
      ← Back to {back.name}
    </Link>
  );
}
