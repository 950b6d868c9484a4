package park.maps.sheet;

import park.maps.height.SpotHeights;
import park.maps.paint.Ramp;

/** A tile as it is printed: a square of coloured cells, as SVG. */
public final class Sheet {

    private Sheet() {}

    public static String svg(SpotHeights heights, int cells) {
        StringBuilder svg = new StringBuilder("<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"0 0 " + cells + " " + cells + "\">");
        for (int row = 0; row < cells; row++) {
            for (int column = 0; column < cells; column++) {
                double height = heights.height((column + 0.5) / cells, (row + 0.5) / cells);
                svg.append("<rect x=\"").append(column).append("\" y=\"").append(row).append("\" width=\"1\" height=\"1\" fill=\"#")
                        .append(Ramp.colour(height)).append("\"/>");
            }
        }
        return svg.append("</svg>").toString();
    }
}
