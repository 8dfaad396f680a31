{
 "version": 4,
 "source": "yard.png",
 "stack": [
  {
   "id": "c141350a12a4",
   "name": "Cloth",
   "on": true,
   "pick": {
    "samples": [
     {
      "id": "62063dfa526d",
      "name": "",
      "role": "keep",
      "reach": "everywhere",
      "rule": "nearer",
      "on": true,
      "x": 10.0,
      "y": 20.0,
      "frame": 0,
      "size": 5,
      "place": "patch",
      "points": [],
      "colour": [
       0.1,
       0.2,
       0.3
      ],
      "tones": [],
      "compare": "surface",
      "tolerance": 7.0,
      "falloff": 3.0,
      "shape": "linear",
      "bend": 0.0
     },
     {
      "id": "4a58739c6edf",
      "name": "",
      "role": "drop",
      "reach": "everywhere",
      "rule": "nearer",
      "on": true,
      "x": 30.0,
      "y": 5.0,
      "frame": 0,
      "size": 5,
      "place": "patch",
      "points": [],
      "colour": [
       0.5,
       0.4,
       0.3
      ],
      "tones": [],
      "compare": "surface",
      "tolerance": 4.0,
      "falloff": 1.0,
      "shape": "linear",
      "bend": 0.0
     }
    ],
    "shading": 85.0,
    "gloss": 0.0,
    "hue_weight": 100.0,
    "saturation_weight": 100.0,
    "outline": [],
    "connected": true,
    "bridge": 0.0,
    "transparent": true,
    "measure": "original",
    "layer": ""
   },
   "bands": {
    "hue": {
     "on": false,
     "inverted": false,
     "corners": [
      0.0,
      0.0,
      360.0,
      360.0
     ],
     "shape": "smooth",
     "bend": 0.0
    },
    "saturation": {
     "on": false,
     "inverted": false,
     "corners": [
      0.0,
      0.0,
      125.0,
      125.0
     ],
     "shape": "smooth",
     "bend": 0.0
    },
    "luminance": {
     "on": false,
     "inverted": false,
     "corners": [
      0.0,
      0.0,
      100.0,
      100.0
     ],
     "shape": "smooth",
     "bend": 0.0
    },
    "red": {
     "on": false,
     "inverted": false,
     "corners": [
      0.0,
      0.0,
      255.0,
      255.0
     ],
     "shape": "smooth",
     "bend": 0.0
    },
    "green": {
     "on": false,
     "inverted": false,
     "corners": [
      0.0,
      0.0,
      255.0,
      255.0
     ],
     "shape": "smooth",
     "bend": 0.0
    },
    "blue": {
     "on": false,
     "inverted": false,
     "corners": [
      0.0,
      0.0,
      255.0,
      255.0
     ],
     "shape": "smooth",
     "bend": 0.0
    },
    "ramp": {
     "on": false,
     "inverse": false,
     "black": 0.0,
     "white": 100.0
    }
   },
   "mask_from": "own",
   "of": [],
   "opposite": false,
   "joined": [],
   "invert": false,
   "edge": {
    "black": 0.0,
    "white": 100.0,
    "gamma": 1.0,
    "specks": 12.0,
    "holes": "auto",
    "all_holes": false,
    "islands_out": [],
    "islands_only": [],
    "grow": 2.5,
    "feather": 3.0,
    "way": "both",
    "smooth": 0.0,
    "hard": false,
    "follow": 6.0,
    "sensitivity": 50.0,
    "fine": 0.0,
    "no_haze": true,
    "clean": "auto"
   },
   "areas": [],
   "outside": 10.0,
   "strength": 80.0,
   "blend": "normal",
   "group": "",
   "adjust": {
    "white": {
     "on": true,
     "temperature": 0.0,
     "tint": 0.0
    },
    "light": {
     "on": true,
     "exposure": 0.5,
     "contrast": 0.0,
     "pivot": 0.0,
     "highlights": 0.0,
     "shadows": 0.0,
     "white_point": 100.0,
     "black_point": 0.0,
     "gamma": 1.0
    },
    "curve": {
     "on": true,
     "curve": [],
     "curve_red": [],
     "curve_green": [],
     "curve_blue": [],
     "in_black": 0.0,
     "in_white": 255.0,
     "middle": 1.0,
     "out_black": 0.0,
     "out_white": 255.0
    },
    "balance": {
     "on": true,
     "shadows_hue": 0.0,
     "shadows_colour": 0.0,
     "shadows_lightness": 0.0,
     "midtones_hue": 0.0,
     "midtones_colour": 0.0,
     "midtones_lightness": 0.0,
     "highlights_hue": 0.0,
     "highlights_colour": 0.0,
     "highlights_lightness": 0.0,
     "shadows_to": 35.0,
     "highlights_from": 70.0
    },
    "hues": {
     "on": true,
     "turn_by_hue": [],
     "saturation_by_hue": [],
     "lightness_by_hue": []
    },
    "recolour": {
     "on": true,
     "hue": 40.0,
     "saturation": -20.0,
     "vibrance": 0.0,
     "lightness": 5.0,
     "one_hue": 0.0,
     "one_hue_at": 0.0
    },
    "match": {
     "on": true,
     "target": null,
     "nearest": false,
     "found": null
    },
    "even": {
     "on": true,
     "even_lightness": 0.0,
     "even_hue": 0.0,
     "mean": null
    },
    "mono": {
     "on": true,
     "mono": 60.0,
     "mono_red": 21.0,
     "mono_green": 72.0,
     "mono_blue": 7.0
    },
    "cdl": {
     "on": true,
     "slope_red": 1.0,
     "slope_green": 1.0,
     "slope_blue": 1.0,
     "offset_red": 0.0,
     "offset_green": 0.0,
     "offset_blue": 0.0,
     "power_red": 1.0,
     "power_green": 1.0,
     "power_blue": 1.0,
     "cdl_saturation": 1.0
    },
    "detail": {
     "on": true,
     "noise": 0.0,
     "blur": 2.0,
     "local_contrast": 0.0,
     "contrast_radius": 40.0,
     "sharpen": 0.0,
     "sharpen_radius": 1.0,
     "grain": 0.0,
     "grain_size": 1.5,
     "frame": 0
    },
    "fill": {
     "on": true,
     "fill": "off",
     "fill_where": "inside",
     "fill_colour": [
      0.18,
      0.18,
      0.18
     ],
     "fill_to": [
      0.8,
      0.8,
      0.8
     ],
     "fill_angle": 90.0,
     "fill_picture": "",
     "fill_across": 0.0,
     "fill_down": 0.0,
     "fill_scale": 100.0,
     "fill_blend": "normal",
     "fill_opacity": 100.0
    }
   }
  },
  {
   "id": "58167f09f327",
   "name": "Rest",
   "on": true,
   "pick": {
    "samples": [],
    "shading": 85.0,
    "gloss": 0.0,
    "hue_weight": 100.0,
    "saturation_weight": 100.0,
    "outline": [],
    "connected": false,
    "bridge": 0.0,
    "transparent": true,
    "measure": "original",
    "layer": ""
   },
   "bands": {
    "hue": {
     "on": false,
     "inverted": false,
     "corners": [
      0.0,
      0.0,
      360.0,
      360.0
     ],
     "shape": "smooth",
     "bend": 0.0
    },
    "saturation": {
     "on": false,
     "inverted": false,
     "corners": [
      0.0,
      0.0,
      125.0,
      125.0
     ],
     "shape": "smooth",
     "bend": 0.0
    },
    "luminance": {
     "on": false,
     "inverted": false,
     "corners": [
      0.0,
      0.0,
      100.0,
      100.0
     ],
     "shape": "smooth",
     "bend": 0.0
    },
    "red": {
     "on": false,
     "inverted": false,
     "corners": [
      0.0,
      0.0,
      255.0,
      255.0
     ],
     "shape": "smooth",
     "bend": 0.0
    },
    "green": {
     "on": false,
     "inverted": false,
     "corners": [
      0.0,
      0.0,
      255.0,
      255.0
     ],
     "shape": "smooth",
     "bend": 0.0
    },
    "blue": {
     "on": false,
     "inverted": false,
     "corners": [
      0.0,
      0.0,
      255.0,
      255.0
     ],
     "shape": "smooth",
     "bend": 0.0
    },
    "ramp": {
     "on": false,
     "inverse": false,
     "black": 0.0,
     "white": 100.0
    }
   },
   "mask_from": "own",
   "of": [],
   "opposite": false,
   "joined": [],
   "invert": true,
   "edge": {
    "black": 0.0,
    "white": 100.0,
    "gamma": 1.0,
    "specks": "auto",
    "holes": "auto",
    "all_holes": false,
    "islands_out": [],
    "islands_only": [],
    "grow": 0.0,
    "feather": 0.0,
    "way": "both",
    "smooth": 0.0,
    "hard": false,
    "follow": "auto",
    "sensitivity": 50.0,
    "fine": 0.0,
    "no_haze": true,
    "clean": "auto"
   },
   "areas": [],
   "outside": 0.0,
   "strength": 100.0,
   "blend": "normal",
   "group": "",
   "adjust": {
    "white": {
     "on": true,
     "temperature": 0.0,
     "tint": 0.0
    },
    "light": {
     "on": true,
     "exposure": 0.0,
     "contrast": 0.0,
     "pivot": 0.0,
     "highlights": 0.0,
     "shadows": 0.0,
     "white_point": 100.0,
     "black_point": 0.0,
     "gamma": 1.0
    },
    "curve": {
     "on": true,
     "curve": [],
     "curve_red": [],
     "curve_green": [],
     "curve_blue": [],
     "in_black": 0.0,
     "in_white": 255.0,
     "middle": 1.0,
     "out_black": 0.0,
     "out_white": 255.0
    },
    "balance": {
     "on": true,
     "shadows_hue": 0.0,
     "shadows_colour": 0.0,
     "shadows_lightness": 0.0,
     "midtones_hue": 0.0,
     "midtones_colour": 0.0,
     "midtones_lightness": 0.0,
     "highlights_hue": 0.0,
     "highlights_colour": 0.0,
     "highlights_lightness": 0.0,
     "shadows_to": 35.0,
     "highlights_from": 70.0
    },
    "hues": {
     "on": true,
     "turn_by_hue": [],
     "saturation_by_hue": [],
     "lightness_by_hue": []
    },
    "recolour": {
     "on": true,
     "hue": 0.0,
     "saturation": 0.0,
     "vibrance": 0.0,
     "lightness": 0.0,
     "one_hue": 0.0,
     "one_hue_at": 0.0
    },
    "match": {
     "on": true,
     "target": null,
     "nearest": false,
     "found": null
    },
    "even": {
     "on": true,
     "even_lightness": 0.0,
     "even_hue": 0.0,
     "mean": null
    },
    "mono": {
     "on": true,
     "mono": 0.0,
     "mono_red": 21.0,
     "mono_green": 72.0,
     "mono_blue": 7.0
    },
    "cdl": {
     "on": true,
     "slope_red": 1.0,
     "slope_green": 1.0,
     "slope_blue": 1.0,
     "offset_red": 0.0,
     "offset_green": 0.0,
     "offset_blue": 0.0,
     "power_red": 1.0,
     "power_green": 1.0,
     "power_blue": 1.0,
     "cdl_saturation": 1.0
    },
    "detail": {
     "on": true,
     "noise": 0.0,
     "blur": 0.0,
     "local_contrast": 0.0,
     "contrast_radius": 40.0,
     "sharpen": 0.0,
     "sharpen_radius": 1.0,
     "grain": 0.0,
     "grain_size": 1.5,
     "frame": 0
    },
    "fill": {
     "on": true,
     "fill": "off",
     "fill_where": "inside",
     "fill_colour": [
      0.18,
      0.18,
      0.18
     ],
     "fill_to": [
      0.8,
      0.8,
      0.8
     ],
     "fill_angle": 90.0,
     "fill_picture": "",
     "fill_across": 0.0,
     "fill_down": 0.0,
     "fill_scale": 100.0,
     "fill_blend": "normal",
     "fill_opacity": 100.0
    }
   }
  }
 ],
 "groups": [],
 "takes": [],
 "solo": "",
 "gamut": "clip",
 "means": {
  "stack.0.name": "Cloth",
  "stack.0.pick.samples.0.tolerance": 7.0,
  "stack.0.pick.samples.0.colour": [
   0.1,
   0.2,
   0.3
  ],
  "stack.0.pick.connected": true,
  "stack.0.edge.grow": 2.5,
  "stack.0.edge.feather": 3.0,
  "stack.0.edge.specks": 12,
  "stack.0.edge.follow": 6.0,
  "stack.0.outside": 10.0,
  "stack.0.strength": 80.0,
  "stack.1.invert": true,
  "gamut": "clip",
  "stack.0.adjust.light.exposure": 0.5,
  "stack.0.adjust.recolour.hue": 40.0,
  "stack.0.adjust.recolour.saturation": -20.0,
  "stack.0.adjust.recolour.lightness": 5.0,
  "stack.0.pick.samples.1.rule": "nearer",
  "stack.0.adjust.mono.mono": 60.0,
  "stack.1.edge.follow": "auto",
  "stack.0.adjust.detail.blur": 2.0
 }
}
