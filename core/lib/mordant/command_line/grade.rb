# frozen_string_literal: true

require "optparse"

module Mordant
  module CommandLine
    # Grades a still, or every frame of a sequence or a video, into stills.
    module Grade
      USAGE = "grade --recipe FILE --from ID --to ID [--rendering ID] IN OUT\n" \
              "    IN, OUT: a still (png, tif; out also exr), or a video or a sequence (in.%04d.png)\n" \
              "    in and a pattern such as out.%04d.png out"

      module_function

      def call(arguments, **)
        options = {}
        rest = OptionParser.new do |parser|
          %w[recipe from to rendering].each { |name| parser.on("--#{name} VALUE") { |value| options[name.to_sym] = value } }
        end.parse(arguments)
        missing = %i[recipe from to].reject { |name| options[name] }
        raise Usage, "grade needs #{missing.map { |m| "--#{m}" }.join(", ")}" unless missing.empty?
        raise Usage, "grade needs IN and OUT" unless rest.size == 2

        run(*rest, **options)
      end

      def run(source, target, recipe:, from:, to:, rendering: nil)
        plan = Mordant::Grade::Plan.new(recipe: read_recipe(recipe), source: Colour.encoding(from).id)
        output = Mordant::Grade::Output.new(view: Mordant::Grade::View.new(encoding: to, rendering:))
        pictures(source, target).each do |codes, path|
          raise MediaError.new(path, "it exists; nothing is overwritten") if File.exist?(path)

          write(output.run(plan.run(codes)), path)
        end
      end

      def read_recipe(path)
        Mordant::Grade::Recipe.from_json(File.read(path))
      rescue ParameterError => e
        raise ParameterError.new(path: "#{path}: #{e.path}", expected: e.expected, found: e.found)
      end

      def pictures(source, target)
        return [[Media::Stills.read(source), target]] if Media::Stills::READABLE.include?(File.extname(source).downcase) && !source.match?(/[\[%]/)
        raise Usage, "a sequence needs a numbered OUT, such as out.%04d.png" unless target.match?(/%0?\d*d/)

        if source.include?("%")
          found = Media::Sequence.find(source) or raise MediaError.new(source, "there are no such numbered frames")
          source = found.path
        end
        facts = Media::Probe.call(source)
        Enumerator.new do |out|
          number = Media::Sequence.parse(source)&.first || 0
          Media::Reader.new(source, rate: facts.rate)
            .each(first: 0, count: facts.frames, width: facts.width, height: facts.height) do |codes|
              out << [codes, format(target, number)]
              number += 1
            end
        end
      end

      def write(frame, path)
        return Media::Stills.write(frame, path) unless File.extname(path).downcase == ".exr"

        primaries = Colour.encoding(frame.encoding).primaries || Colour::Primaries::AP0
        File.binwrite(path, Media::EXR.new(primaries:, rate: Media::Probe::SEQUENCE_RATE).encode(frame))
      end
    end
  end
end
