{
 "version": 3,
 "source": "yard.png",
 "stack": [
  {
   "id": "31e85cf971fa",
   "name": "Sieve 1",
   "on": true,
   "pick": {
    "samples": [
     {
      "id": "b95e06536d0d",
      "name": "",
      "role": "keep",
      "reach": "everywhere",
      "rule": "tolerance",
      "on": true,
      "x": 1230.0,
      "y": 330.0,
      "frame": 0,
      "size": 5,
      "place": "patch",
      "points": [],
      "colour": [
       0.014765976704657078,
       0.027649370953440666,
       0.13419357657432557
      ],
      "tones": [],
      "compare": "surface",
      "tolerance": 9.5,
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
   "invert": false,
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
    "clean": 0.0
   },
   "areas": [],
   "outside": 0.0,
   "strength": 100.0,
   "adjust": {
    "light": {
     "exposure": 0.0
    },
    "recolour": {
     "hue": 110.0,
     "saturation": 10.0,
     "lightness": 0.0,
     "dyed": true
    }
   }
  }
 ],
 "gamut": "lower chroma"
}
