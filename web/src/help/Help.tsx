import { useLocation } from "react-router";
import { Keys } from "../parts/Shortcuts";
import { Dialog } from "../parts/Dialog";
import { Fold } from "../parts/Fold";
import { allTerms, pageAt } from "./model";
import { terms, type Term } from "../parts/words";

/** How the work of this page is done here, the words that stand on it, and the keys. */
export function Help({ open, onClose }: { open: boolean; onClose: () => void }) {
  const { pathname } = useLocation();
  const page = pageAt(pathname);
  return (
    <Dialog title={`${page.title}: how it is done here`} open={open} onClose={onClose}>
      {page.how.map((h) => (
        <p key={h}>{h}</p>
      ))}
      <h3>Words on this page</h3>
      {page.words.map((w) => (
        <Word key={w} t={terms[w]!} />
      ))}
      <Fold summary="All words">
        {allTerms().map((t) => (
          <Word key={t.word} t={t} />
        ))}
      </Fold>
      <Fold summary="Keyboard">
        <Keys />
      </Fold>
    </Dialog>
  );
}

/** A word that opens its sentence. */
function Word({ t }: { t: Term }) {
  return (
    <details className="border-top">
      <summary className="tap py-2">{t.word}</summary>
      <p>
        {t.says}{" "}
        <span className="soft">
          {t.unit && `In ${t.unit}. `}Source: {t.source}.
        </span>
      </p>
    </details>
  );
}
