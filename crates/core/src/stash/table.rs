//! The stash as a table: comma-separated values out, and in again with every finding told by its row.

use super::item::{Item, ItemKind, Side};
use crate::document::{Finding, Invalid, length_number, number};
use crate::geometry::{Rect, Size};
use crate::length::{Length, Unit};
use serde_json::{Map, Value, json};

/// The most rows that are brought in at once.
pub const MOST_ROWS: usize = 10_000;
/// So many findings are told; more help nobody.
const MOST_FINDINGS: usize = 200;

/// The columns, in their order. Any of them but the name may be left out.
pub const COLUMNS: [&str; 34] = [
    "id",
    "kind",
    "name",
    "count",
    "width",
    "height",
    "unit",
    "kit",
    "kept",
    "note",
    "strip",
    "strip edge",
    "bites",
    "thickness",
    "material",
    "form",
    "reach",
    "finest",
    "cuts",
    "letters",
    "a name",
    "a colours",
    "a busy",
    "a direction",
    "a scale",
    "a picture",
    "a tile",
    "b name",
    "b colours",
    "b busy",
    "b direction",
    "b scale",
    "b picture",
    "b tile",
];

/// A thing that a row tells of.
#[derive(Clone, Debug, PartialEq)]
pub struct Row {
    /// The thing that it was when it was taken out.
    pub id: Option<String>,
    /// What it is now.
    pub item: Item,
}

/// What a table came to.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Table {
    /// A thing a row.
    pub rows: Vec<Row>,
    /// Columns that mean nothing here.
    pub ignored: Vec<String>,
}

/// Writes things as a table, each with its id.
///
/// # Errors
/// When the writer fails, which would be a fault of the program.
pub fn to_table(things: &[(String, Item)]) -> Result<String, csv::Error> {
    let mut writer = csv::Writer::from_writer(Vec::new());
    writer.write_record(COLUMNS)?;
    for (id, item) in things {
        let cells = COLUMNS.map(|column| cell_of(id, item, column));
        writer.write_record(cells)?;
    }
    let bytes = writer.into_inner().map_err(|e| e.into_error())?;
    Ok(String::from_utf8_lossy(&bytes).into_owned())
}

fn plain(length: Length, unit: Unit) -> String {
    length_number(length, unit).to_string()
}

fn by(size: Size, unit: Unit) -> String {
    format!("{} x {}", plain(size.w, unit), plain(size.h, unit))
}

fn cell_of(id: &str, item: &Item, column: &str) -> String {
    let unit = item.unit;
    let length = |l: Option<Length>| l.map(|l| plain(l, unit));
    let text = |t: &Option<String>| t.clone();
    let found = match column {
        "id" => Some(id.to_owned()),
        "kind" => Some(item.kind.name().to_owned()),
        "name" => Some(item.name.clone()),
        "count" => Some(item.count.to_string()),
        "width" => length(item.size.map(|s| s.w)),
        "height" => length(item.size.map(|s| s.h)),
        "unit" => Some(unit.name().to_owned()),
        "kit" => text(&item.kit),
        "kept" => text(&item.kept),
        "note" => text(&item.note),
        "strip" => length(item.strip.map(|s| s.width)),
        "strip edge" => item.strip.map(|s| s.edge.name().to_owned()),
        "bites" => Some(listed(&item.bites, |b: &Rect| {
            let sides = [b.x, b.y, b.w, b.h].map(|l| plain(l, unit));
            sides.join(" ")
        })),
        "thickness" => length(item.thickness),
        "material" => item.material.map(|m| m.name().to_owned()),
        "form" => item.form.map(|f| f.name().to_owned()),
        "reach" => length(item.tool.reach),
        "finest" => length(item.tool.finest),
        // What is left of each letter, its widths and ways: no one cell says that better than the document itself.
        "letters" => item.letters.as_ref().map(|l| l.to_json(unit).to_string()),
        "cuts" => Some(listed(&item.tool.cuts, |s| by(*s, unit))),
        _ => match column.split_once(' ') {
            Some(("a", field)) => side_cell(&item.a, field, unit),
            Some((_, field)) => item.b.as_ref().and_then(|b| side_cell(b, field, unit)),
            None => None,
        },
    };
    found.unwrap_or_default()
}

fn listed<T>(all: &[T], each: impl Fn(&T) -> String) -> String {
    let written: Vec<String> = all.iter().map(each).collect();
    written.join("; ")
}

fn side_cell(side: &Side, field: &str, unit: Unit) -> Option<String> {
    match field {
        "name" => side.name.clone(),
        "colours" => Some(listed(&side.colours, |s| {
            format!("{} {}", s.colour.to_hex(), number(s.share))
        })),
        "busy" => Some(number(side.busy).to_string()),
        "direction" => Some(side.direction.name().to_owned()),
        "scale" => side.scale.map(|l| plain(l, unit)),
        "picture" => side.picture.clone(),
        _ => side.tile.map(|t| by(t, unit)),
    }
}

/// Reads a table: separated by commas, semicolons or tabs, whichever its first line has most of.
///
/// # Errors
/// Everything that is wrong in it, by row and column: nothing of it is read by halves.
pub fn from_table(text: &str) -> Result<Table, Invalid> {
    let text = text.trim_start_matches('\u{feff}');
    let first = text.lines().next().unwrap_or_default();
    let separator = [',', ';', '\t']
        .into_iter()
        .max_by_key(|s| first.matches(*s).count())
        .unwrap_or(',');
    let mut reader = csv::ReaderBuilder::new()
        .delimiter(separator as u8)
        .flexible(true)
        .trim(csv::Trim::All)
        .from_reader(text.as_bytes());
    let broken = |e: csv::Error| Invalid::one("the table", e.to_string(), "rows of cells");
    let header: Vec<String> = reader
        .headers()
        .map_err(broken)?
        .iter()
        .map(|h| h.to_lowercase().replace('_', " "))
        .collect();
    if !header.iter().any(|h| h == "name") {
        let found = format!("the columns {}", header.join(", "));
        let allowed = format!("a column “name”; the others are {}", COLUMNS.join(", "));
        return Err(Invalid::one("row 1", found, allowed));
    }
    let unknown = |h: &&String| !h.is_empty() && !COLUMNS.contains(&h.as_str());
    let mut table = Table {
        rows: Vec::new(),
        ignored: header.iter().filter(unknown).cloned().collect(),
    };
    let mut findings: Vec<Finding> = Vec::new();
    for (n, record) in reader.records().enumerate() {
        let line = n + 2;
        if n >= MOST_ROWS {
            let allowed = format!("up to {MOST_ROWS} rows at once");
            return Err(Invalid::one(
                &format!("row {line}"),
                "one row more",
                allowed,
            ));
        }
        let record = record.map_err(broken)?;
        let cells: Map<String, Value> = header
            .iter()
            .zip(record.iter())
            .filter(|(_, cell)| !cell.is_empty())
            .map(|(name, cell)| (name.clone(), cell.into()))
            .collect();
        if cells.is_empty() {
            continue;
        }
        match read_row(&cells) {
            Ok(row) => table.rows.push(row),
            Err(invalid) => findings.extend(invalid.under(&format!("row {line}")).findings),
        }
        if findings.len() > MOST_FINDINGS {
            break;
        }
    }
    if findings.is_empty() {
        Ok(table)
    } else {
        findings.truncate(MOST_FINDINGS);
        Err(Invalid { findings })
    }
}

/// The cells of a row, by their columns.
struct Cells<'a> {
    cells: &'a Map<String, Value>,
    unit: Unit,
    findings: Vec<Finding>,
}

impl Cells<'_> {
    fn text(&self, column: &str) -> Option<&str> {
        self.cells.get(column).and_then(Value::as_str)
    }

    fn wrong(&mut self, column: &str, found: &str, allowed: &str) {
        self.findings.push(Finding {
            path: column.to_owned(),
            found: format!("“{found}”"),
            allowed: allowed.to_owned(),
        });
    }

    /// A length in a cell, as the item's number.
    fn length_in(&mut self, column: &str, text: &str) -> Option<Value> {
        match Length::parse(text, self.unit) {
            Ok(length) => Some(length_number(length, self.unit)),
            Err(error) => {
                self.wrong(column, text, error.allowed);
                None
            }
        }
    }

    fn length(&mut self, column: &str) -> Option<Value> {
        let text = self.text(column)?.to_owned();
        self.length_in(column, &text)
    }

    fn number(&mut self, column: &str, allowed: &str) -> Option<Value> {
        let text = self.text(column)?.to_owned();
        let read = text.replace(',', ".").parse::<f64>().ok();
        let read = read.filter(|n| n.is_finite());
        if read.is_none() {
            self.wrong(column, &text, allowed);
        }
        read.map(number)
    }

    /// `3 x 4`
    fn size(&mut self, column: &str, text: &str) -> Option<Value> {
        let sides = text.split(['x', '×']).map(str::trim);
        let sides: Vec<String> = sides.map(str::to_owned).collect();
        let [w, h] = sides.as_slice() else {
            self.wrong(column, text, "a width by a height, like 3 x 4");
            return None;
        };
        let (w, h) = (self.length_in(column, w), self.length_in(column, h));
        Some(json!({"w": w?, "h": h?}))
    }

    /// Parts with semicolons between.
    fn parts(&self, column: &str) -> Vec<String> {
        let text = self.text(column).unwrap_or_default();
        let parts = text.split(';').map(str::trim);
        parts.filter(|p| !p.is_empty()).map(str::to_owned).collect()
    }

    fn bites(&mut self) -> Vec<Value> {
        let mut bites = Vec::new();
        for part in self.parts("bites") {
            let sides: Vec<&str> = part.split_whitespace().collect();
            let [x, y, w, h] = sides.as_slice() else {
                self.wrong("bites", &part, "left, top, width and height, like 9 0 3 2");
                continue;
            };
            let read = [*x, *y, *w, *h].map(|s| self.length_in("bites", s));
            if let [Some(x), Some(y), Some(w), Some(h)] = read {
                bites.push(json!({"x": x, "y": y, "w": w, "h": h}));
            }
        }
        bites
    }

    fn side(&mut self, of: &str) -> Option<Value> {
        let column = |field: &str| format!("{of} {field}");
        let fields = [
            "name",
            "colours",
            "busy",
            "direction",
            "scale",
            "picture",
            "tile",
        ];
        if !fields.iter().any(|f| self.cells.contains_key(&column(f))) {
            return None;
        }
        let mut side = json!({"colours": []});
        let colours = column("colours");
        let mut swatches = Vec::new();
        for part in self.parts(&colours) {
            let (colour, share) = part.split_once(' ').unwrap_or((&part, "1"));
            match share.trim().replace(',', ".").parse::<f64>() {
                Ok(share) => swatches.push(json!({"colour": colour, "share": share})),
                Err(_) => self.wrong(&colours, &part, "a colour and its share, like #1f2f56 0.6"),
            }
        }
        side["colours"] = swatches.into();
        for field in ["name", "direction", "picture"] {
            if let Some(text) = self.text(&column(field)) {
                side[field] = text.to_lowercase().into();
                if field != "direction" {
                    side[field] = self.text(&column(field)).into();
                }
            }
        }
        if let Some(busy) = self.number(&column("busy"), "a number from 0 to 1") {
            side["busy"] = busy;
        }
        if let Some(scale) = self.length(&column("scale")) {
            side["scale"] = scale;
        }
        let tile = self.text(&column("tile")).map(str::to_owned);
        if let Some(tile) = tile.and_then(|t| self.size(&column("tile"), &t)) {
            side["tile"] = tile;
        }
        Some(side)
    }
}

fn read_row(cells: &Map<String, Value>) -> Result<Row, Invalid> {
    let unit = match cells.get("unit").and_then(Value::as_str) {
        Some("mm") => Unit::Millimetre,
        _ => Unit::Inch,
    };
    let mut row = Cells {
        cells,
        unit,
        findings: Vec::new(),
    };
    let kind = row.text("kind").unwrap_or("sheet").to_lowercase();
    let mut item = json!({"unit": row.text("unit").unwrap_or("in"), "kind": kind, "name": row.text("name").unwrap_or_default()});
    if let Some(count) = row.number("count", "a whole number from 0") {
        item["count"] = count;
    }
    let (w, h) = (row.length("width"), row.length("height"));
    match (w, h) {
        (None, None) => {
            let usual = ItemKind::from_name(&kind).and_then(ItemKind::usual_size);
            let size = usual
                .map(|s| json!({"w": length_number(s.w, unit), "h": length_number(s.h, unit)}));
            if let Some(size) = size {
                item["size"] = size;
            }
        }
        (w, h) => item["size"] = json!({"w": w, "h": h}),
    }
    for field in ["kit", "kept", "note"] {
        if let Some(text) = row.text(field) {
            item[field] = text.into();
        }
    }
    for field in ["material", "form"] {
        if let Some(text) = row.text(field) {
            item[field] = text.to_lowercase().into();
        }
    }
    if let Some(width) = row.length("strip") {
        let edge = row.text("strip edge").unwrap_or("bottom").to_lowercase();
        item["strip"] = json!({"edge": edge, "width": width});
    }
    for field in ["thickness", "reach", "finest"] {
        if let Some(length) = row.length(field) {
            item[field] = length;
        }
    }
    let bites = row.bites();
    if !bites.is_empty() {
        item["bites"] = bites.into();
    }
    let cuts: Vec<Value> = row
        .parts("cuts")
        .iter()
        .filter_map(|part| row.size("cuts", part))
        .collect();
    if !cuts.is_empty() {
        item["cuts"] = cuts.into();
    }
    if let Some(letters) = row.text("letters").map(str::to_owned) {
        match serde_json::from_str::<Value>(&letters) {
            Ok(read) => item["letters"] = read,
            Err(_) => row.wrong("letters", &letters, "a letter set as it was taken out"),
        }
    }
    for of in ["a", "b"] {
        if let Some(side) = row.side(of) {
            item[of] = side;
        }
    }
    let id = row.text("id").map(str::to_owned);
    if !row.findings.is_empty() {
        return Err(Invalid {
            findings: row.findings,
        });
    }
    Ok(Row {
        id,
        item: Item::from_json(&item)?,
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::stash::{Direction, Said, said};

    fn things() -> Vec<(String, Item)> {
        let text = "2 x 12x12 dots / plain navy, strip 1/2 bottom, kit Ebb, 20 buttons navy 1/2, a scrap of awning 12 x 3 3/4, 5 cardstock mustard";
        let mut all: Vec<Item> = said(text, Unit::Inch)
            .into_iter()
            .filter_map(|s| match s {
                Said::Item(item) => Some(*item),
                Said::Unknown(_) => None,
            })
            .collect();
        all[0].a.direction = Direction::Up;
        all[0].a.busy = 0.25;
        all[0].a.scale = Some(Length::inches(1, 4));
        all[0].note = Some("she said \"frayed\", twice; at the edge".to_owned());
        all[2].bites = vec![crate::geometry::Rect {
            x: Length::ZERO,
            y: Length::ZERO,
            w: Length::inches(3, 2),
            h: Length::inches(1, 1),
        }];
        all.into_iter()
            .enumerate()
            .map(|(n, item)| (n.to_string(), item))
            .collect()
    }

    #[test]
    fn what_goes_out_comes_in_again_as_it_was() {
        let things = things();
        let text = to_table(&things).unwrap();
        let read = from_table(&text).unwrap();
        assert!(read.ignored.is_empty());
        let again: Vec<(String, Item)> = read
            .rows
            .into_iter()
            .map(|r| (r.id.unwrap(), r.item))
            .collect();
        assert_eq!(again, things);
        // Out of another program: semicolons, a mark at the beginning.
        let semicolons =
            "\u{feff}name;count;width;height;unit\nKreise;3;300;300;mm\n;;;;\nTüpfel;1;8,5;11;in\n";
        let read = from_table(semicolons).unwrap();
        assert_eq!(read.rows.len(), 2);
        assert_eq!(
            read.rows[0].item.size.unwrap().w,
            Length::from_ticks(2_400_000)
        );
        assert_eq!(read.rows[1].item.size.unwrap().w, Length::inches(17, 2));
    }

    #[test]
    fn every_row_that_is_wrong_is_told() {
        let text = "name,count,width,height,colour of mood\nDots,-1,12,12,blue\nWaves,two,12,12,\n,1,12,12,\nStripes,1,wide,12,\nGood,1,12,12,\n";
        let error = from_table(text).expect_err("four rows are wrong");
        let paths: Vec<&str> = error.findings.iter().map(|f| f.path.as_str()).collect();
        assert_eq!(
            paths,
            ["row 2.count", "row 3.count", "row 4.name", "row 5.width"]
        );
        let unnamed = from_table("kind,count\nsheet,1\n").expect_err("no names");
        assert!(unnamed.to_string().contains("a column “name”"), "{unnamed}");
        let ignored = from_table("name,colour of mood\nDots,blue\n")
            .unwrap()
            .ignored;
        assert_eq!(ignored, ["colour of mood"]);
    }

    #[test]
    fn ten_thousand_rows_are_read_and_one_more_is_not() {
        let row = "Dots,1,12,12\n";
        let many = format!("name,count,width,height\n{}", row.repeat(MOST_ROWS));
        assert_eq!(from_table(&many).unwrap().rows.len(), MOST_ROWS);
        let more = format!("{many}{row}");
        assert!(
            from_table(&more)
                .expect_err("too many")
                .to_string()
                .contains("10000")
        );
    }
}
