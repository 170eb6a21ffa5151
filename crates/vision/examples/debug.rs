fn main() {
    let only = std::env::args().nth(1).unwrap_or_default();
    for line in std::fs::read_to_string("/work/shared/cases/read/cases.tsv").unwrap().lines() {
        let c: Vec<&str> = line.split('\t').collect();
        if !c[0].contains(&only) { continue }
        let (w, h) = c[2].split_once('x').unwrap();
        let img = image::open(format!("/work/shared/cases/read/pictures/{}", c[1])).unwrap().to_rgb8();
        metrosk_vision::debug(&img, (w.parse().unwrap(), h.parse().unwrap()), c[3].parse().unwrap(), &format!("/tmp/dbg/{}.png", c[0]));
    }
}
