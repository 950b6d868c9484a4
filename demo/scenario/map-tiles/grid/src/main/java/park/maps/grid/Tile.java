package park.maps.grid;

/** A square of the map: at zoom z the world is 2 to the z tiles wide and high. */
public record Tile(int zoom, int column, int row) {

    public Tile {
        int across = 1 << zoom;
        if (zoom < 0 || zoom > 20 || column < 0 || column >= across || row < 0 || row >= across) {
            throw new IllegalArgumentException("no tile " + zoom + "/" + column + "/" + row);
        }
    }

    /** The tile that holds a position, in degrees (spherical Mercator, latitudes to 85). */
    public static Tile at(double latitude, double longitude, int zoom) {
        int across = 1 << zoom;
        double y = Math.log(Math.tan(Math.PI / 4 + Math.toRadians(latitude) / 2));
        int column = (int) Math.floor((longitude + 180) / 360 * across);
        int row = (int) Math.floor((1 - y / Math.PI) / 2 * across);
        return new Tile(zoom, Math.min(across - 1, column), Math.clamp(row, 0, across - 1));
    }

    /** The tile at the zoom before that holds this one. */
    public Tile parent() {
        return new Tile(zoom - 1, column / 2, row / 2);
    }

    public boolean holds(Tile other) {
        Tile at = other;
        while (at.zoom > zoom) {
            at = at.parent();
        }
        return at.equals(this);
    }
}
