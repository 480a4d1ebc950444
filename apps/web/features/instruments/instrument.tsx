import type { Glance } from "@uprise/core";
import { BakeArc } from "./arc";
import { Beam } from "./beam";
import { Ribbon } from "./ribbon";
import { FillSection } from "./section";
import type { InstrumentName } from "./sentences";

/** One of the four drawings. */
export function Instrument({ name, analysis, width }: { name: InstrumentName; analysis: Glance; width: number }) {
  switch (name) {
    case "lift":
      return <Beam lift={analysis.lift} width={width} />;
    case "body":
      return <Ribbon body={analysis.body} width={width} />;
    case "fill":
      return <FillSection fill={analysis.fill} vessel={analysis.given.vessel} width={width} />;
    case "bake":
      return analysis.bake ? <BakeArc bake={analysis.bake} said={analysis.recipe?.minutes} width={width} /> : null;
  }
}
