//! Reads sketches from pictures.
mod page; mod plane; mod sheet; mod strokes; mod writing; mod panels; mod clusters; mod rounds; mod trace; mod blocks; mod evidence; mod repeats; mod document;
pub fn debug(picture: &image::RgbImage, page: (f64, f64), pages: u32, out: &str) {
    let t = std::time::Instant::now();
    let gray = sheet::brightness(picture);
    let found = page::find(&gray, pages);
    let sheet = sheet::upright(picture, &gray, &found, page, pages);
    let t1 = t.elapsed();
    let tr = trace::trace(&sheet);
    eprintln!("{out} ol {} ph {} strong {} texts {} runs {} cl {} panels {} rounds {} wedges {} in {:?} {:?}", found.outlined, found.photographed, sheet.strong, tr.writing.len(), tr.runs.len(), tr.clusters.len(), tr.panels.len(), tr.rounds.len(), tr.wedges.len(), t1, t.elapsed());
    let bl = blocks::blocks(&sheet, &tr);
    std::fs::write(out.replace(".png", ".json"), document::sketch(&sheet, &bl, page, "in", "x").to_string()).unwrap();
    let t3 = t.elapsed(); eprintln!("{t3:?}");
    let mut img = image::RgbImage::from_fn(tr.ink.w as u32, tr.ink.h as u32, |x, y| { let v = if tr.ink.at(x as usize, y as usize) { 130 } else { 240 }; image::Rgb([v, v, v]) });
    for (i, p) in tr.panels.iter().enumerate() {
        let c = [[220,0,0],[0,140,0],[0,0,220],[200,120,0],[160,0,200],[0,150,170]][i % 6];
        let q = p.points();
        for k in 0..4 { for d in 0..3 { let d = d as f32; let (a, b) = (q[k], q[(k+1)%4]);
        imageproc::drawing::draw_line_segment_mut(&mut img, (a[0] as f32+d, a[1] as f32+d), (b[0] as f32+d, b[1] as f32+d), image::Rgb(c)); } }
    }
    for r in &tr.rounds { imageproc::drawing::draw_hollow_ellipse_mut(&mut img, (r.middle[0] as i32, r.middle[1] as i32), r.rx as i32, r.ry as i32, image::Rgb([255, 0, 0])); }
    let mut rect = |e: &writing::Extent, c: [u8; 3]| imageproc::drawing::draw_hollow_rect_mut(&mut img, imageproc::rect::Rect::at(e.x0 as i32, e.y0 as i32).of_size(e.w() as u32, e.h() as u32), image::Rgb(c));
    for e in &tr.clusters { rect(e, [255,128,0]); }
    for w in &tr.wedges { rect(&w.extent, [0,128,255]); }
    for t in &tr.writing { rect(&t.extent, if t.lines {[0,180,0]} else {[255,0,255]}); }
    img.save(out).unwrap();
}
