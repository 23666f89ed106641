# frozen_string_literal: true

module Mordant
  module Grade
    # What a recipe's document can hold, as a text for people (docs/recipes.md), made of what
    # steps and contributors declare.
    class Handbook
      FIRST = "{\"steps\": [{\"id\": \"warm\", \"kind\": \"balance\", \"parameters\": {\"temperature\": 12}}]}"
      INTRODUCTION = <<~TEXT
        # Recipes

        A recipe is a JSON object with a list of steps, in signal order. `bin/mordant grade`, `bake` and `matte` read it, swatches hold
        it, and the application keeps every grade as one. This page is made of what the steps declare (`bin/mordant steps --page`);
        `bin/mordant steps` prints the same as JSON.

            #{FIRST}

        | key of a step | what it is |
        |---|---|
        | `id` | text of 1 to 80 characters, unique in the recipe; needed |
        | `kind` | one of those below; needed |
        | `name` | what it is called; its kind's name where it is left out |
        | `enabled` | `true` or `false`; `true` where it is left out |
        | `strength` | how much of its change is kept, 0 to 1; 1 where it is left out |
        | `braid` | a text; neighbours with the same one take the same input, and their changes are added. Pixel steps only |
        | `parameters` | an object; what is left out is neutral |
        | `keys` | an object: by the name of a parameter that moves a list of `{"frame", "value", "ease", "in", "out"}`, frames rising, see *Time* |
        | `bundle` | id of the recipe's bundle that it is kept in, see *Bundles*; its other steps stand next to it |
        | `spans` | ids of the recipe's spans that it takes part in; none: it acts all through the shot |
        | `matte` | what of the picture it acts on, see *Mattes* |

        At most %<most>d steps. NaN, infinity, unknown keys and values out of range are refused with their path, such as
        `steps[0].parameters.exposure`. A step whose parameters are neutral, which is off, or whose strength is 0 changes nothing, bit for bit.

        *Reach* says what a step sees of a picture: the pixel's own value; an area around it, or where it is; or time, frames before and
        after. A look-up table holds pixel steps alone, without mattes, keys and spans. A number of several channels is a list in their order.
        Shares are of the picture's height unless they say otherwise, so that a proxy looks as its master does.
      TEXT
      TIME = <<~TEXT
        ## Time

        Frames are counted from the first one of what owned the recipe when they were given (the shot, the wash; at the command line the
        first frame); below 0 lies what a shot was given at its front since.

            "keys": {"exposure": [{"frame": 0, "value": 0.0, "ease": "smooth"}, {"frame": 24, "value": 0.8}]}

        The way on from a key is `straight` (where it is left out), `smooth` or `hold`: it stays until the next one. A smooth way is a cubic
        Hermite curve; `out` of the key before it and `in` of the one after it are its slopes, 0 to 3 times the straight way's: 0 rests, 1 goes
        straight there, 3 is as steep as never goes beyond both values. Slopes that are left out are found from the keys on either side,
        for each number of a row apart. Texts, and curves of another count of points, stay until the next key. Keys as recipes had them
        before, a list of `{"frame", "parameters"}`, are read to the same values.

            {"steps": [...], "spans": [{"id": "s", "name": "turns round", "start": 40, "finish": 96, "fade_in": [15, 0], "fade_out": [0, 10], "curve": "cosine"}]}

        A span is at full strength from `start` to `finish`, both with it, but for its fades: frames before and after either mark, over which it
        goes by a cosine or `straight`. A step of several spans follows the strongest; where none of them is, it is not there at all.
      TEXT
      BUNDLES = <<~TEXT
        ## Bundles

            {"steps": [...], "bundles": [{"id": "b", "name": "Film", "enabled": true, "strength": 0.8}]}

        Steps next to each other that name one bundle are kept together: switched, and given one strength. That scales amounts of a step
        where the step has such, as below, so that grain has less spread and weave less distance; of any other step it
        keeps so much of its change. A `strength` of 0 or `enabled` false changes nothing, bit for bit.

        %<scaled>s
      TEXT
      MATTES = <<~TEXT
        ## Mattes

            "matte": %<example>s

        | key of a contributor | what it is |
        |---|---|
        | `id` | text of 1 to 80 characters, unique in the matte; needed |
        | `kind` | one of the contributors below; needed |
        | `name` | a name of its own |
        | `mode` | `add` (the greater of what there is and of this one), `subtract` (the lesser of what there is and of the rest), `intersect` (the lesser of both), or `out`: as if it were not there. The first is added to nothing, or taken from everything |
        | `softness` | standard deviation of a Gaussian over it, 0 to 0.2 of the picture's height |
        | `invert` | `true`: what it leaves out |
        | `strength` | 0 to 1, how much of it counts |
        | `parameters` | an object; what is left out is neutral |
        | `keys` | as of a step |
        | `path` | of a shape: `{"id", "from"}`, the id of a path in the application that carries it, and the frame it is followed from |

        Contributors in order, and then `refinements` in order, each with `id`, `kind`, `enabled` and `parameters`. `strength`, 0 to 1,
        multiplies the whole. A matte of no contributors acts everywhere, and gives nothing to those that are linked to it. Contributors
        see log codes of the working space as the step does, or as the first step does; a step with a matte meets its input in log codes.

        Keys count in hue, chroma and lightness of log codes r, g, b: x = r - (g + b) / 2 and y = (g - b) sqrt(3) / 2, chroma the length of
        (x, y), hue its angle (0 red, 120 green, 240 blue), lightness the luma on the tone axis. More or less light moves lightness alone.
      TEXT

      # @return [String] Markdown
      def self.text = new.text

      # @param kind [Class] of a step or a contributor
      # @return [Hash] parameters of which none is neutral
      def self.example(kind)
        kind.parameters.to_h { |name, parameter| [name.to_s, parameter.example] }
      end

      def text
        [format(INTRODUCTION, most: Recipe::LARGEST), "## Steps", *Steps.all.map { |kind| section(kind, "#{kind.domain} values of the working space · reach: #{kind.reach}") },
          TIME, format(BUNDLES, scaled: Steps.all.select { |kind| kind.scales.any? }.map { |kind| "- `#{kind.id}`: #{kind.scales.map { |name| "`#{name}`" }.join(", ")}" }.join("\n")), format(MATTES, example: JSON.generate(matte)), *Matte.kinds.map { |kind| section(kind, "a contributor") },
          *Matte.refinements.map { |kind| section(kind, "a refinement") }].join("\n\n").gsub(/\n{3,}/, "\n\n").strip << "\n"
      end

      private

      def matte = {"contributors" => [{"id" => "face", "kind" => "ellipse", "mode" => "add", "parameters" => {}}, {"id" => "lights", "kind" => "luminance", "mode" => "intersect", "parameters" => {"low" => 0.6}}], "refinements" => [{"id" => "calm", "kind" => "blur", "parameters" => {"size" => 0.01}}], "strength" => 1.0}

      def section(kind, about)
        rows = kind.parameters.values.map { |parameter| "| `#{parameter.name}` | #{value(parameter)} | #{neutral(parameter)} | #{parameter.about} |" }
        example = JSON.generate({"id" => "a", "kind" => kind.id, "parameters" => Handbook.example(kind)})
        "### #{kind.label}: `#{kind.id}`\n\n#{about}\n\n| parameter | values | neutral | |\n|---|---|---|---|\n#{rows.join("\n")}\n\n    #{example}"
      end

      def value(parameter)
        told = parameter.to_h
        return "a list of `[place, value]`, places #{told[:first]} to #{told[:last]} (#{told[:across]}), values #{told[:min]} to #{told[:max]}" if parameter.is_a?(Declared::PointsParameter)
        return told[:ranges].map { |part, (low, high)| "#{part} #{low} to #{high}" }.join(", ") if parameter.is_a?(Declared::ColourParameter)
        return told[:from].is_a?(Array) ? told[:from].map { |word| "`#{word}`" }.join(", ") : {"lut" => "a path in the library", "encoding" => "id of an encoding", "reference" => "an id", "negative" => "id of a negative, see materials.md", "print" => "id of a print, see materials.md"}.fetch(told[:from]) if parameter.is_a?(Declared::TextParameter)

        return "a list of at most #{told[:most]} rows of #{told[:columns].zip(told[:ranges]).map { |column, (low, high)| "`#{column}` #{low} to #{high}" }.join(", ")}" if parameter.is_a?(Declared::RowsParameter)

        "#{told[:min]} to #{told[:max]} #{told[:unit]}#{", of #{told[:channels].join(", ")}" if told[:channels]}"
      end

      def neutral(parameter)
        value = parameter.neutral_value
        "`#{JSON.generate(if value.is_a?(Array)
              value.map { |one| one.is_a?(Float) ? one.round(4) : one }
            else
              (value.is_a?(Float) ? value.round(4) : value)
            end)}`"
      end
    end
  end
end
