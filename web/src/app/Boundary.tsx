import { Component, type ReactNode } from "react";
import { Problem } from "../parts/states";

/** Catches what no view caught, so that a mistake in one never blanks the whole tool. */
export class Boundary extends Component<{ children: ReactNode }, { error?: unknown }> {
  override state: { error?: unknown } = {};
  static getDerivedStateFromError(error: unknown) {
    return { error };
  }
  override render() {
    if (this.state.error === undefined) return this.props.children;
    return (
      <Problem
        error={new Error("This view stopped working. What you saved is safe. Load the page again.")}
        retry={() => location.reload()}
      />
    );
  }
}
