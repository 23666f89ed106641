# frozen_string_literal: true

module Mordant
  module CommandLine
    # Reads a cut list, and finds what its events are of.
    module Conform
      USAGE = "conform --list FILE [--rate R] [--media FOLDER]\n" \
              "    a CMX 3600 list or an OpenTimelineIO file as JSON: events, what each is linked to in a folder, and notes\n" \
              "    R: frames a second, 24, 25, 30000/1001 or 29.97, of a list that does not tell it"

      module_function

      def call(arguments, output:, **)
        options = {}
        rest = OptionParser.new { |parser| %i[list rate media].each { |name| parser.on("--#{name} VALUE") { |value| options[name] = value } } }.parse(arguments)
        raise Usage, "conform needs --list FILE, and takes nothing but options" unless options[:list] && rest.empty?

        list = Cut::List.read(options[:list], rate: options[:rate] && rate(options[:rate]))
        relink = options[:media] && Cut::Relink.new(footage(options[:media]))
        events = list.events.map { |event| event.to_h.merge("link" => relink&.link(event)&.to_h) }
        output.puts(JSON.pretty_generate(list.to_h.merge("events" => events)))
      end

      # Rates with decimals stand for those of 1001.
      def rate(text)
        found = Rational(text, exception: false)
        raise Usage, "conform --rate: #{text} is no rate" unless found&.between?(1, 240)
        return found if found.denominator == 1 || found.denominator == 1001

        near = Rational(found.ceil * 1000, 1001)
        ((near - found).abs < 0.01) ? near : found
      end

      # @return [Array<Cut::Relink::Footage>] what can be read below a folder
      def footage(folder)
        raise MediaError.new(folder, "the folder is not there") unless File.directory?(folder)

        [folder, *Dir.glob(File.join(folder, "**/")).sort].uniq { |one| File.realpath(one) }.flat_map do |place|
          runs, others = Media::Sequence.group(place.chomp("/"), Dir.children(place).sort.select { |name| File.file?(File.join(place, name)) })
          files = others.select { |name| Media::Probe::EXTENSIONS.include?(File.extname(name).downcase) }.map { |name| File.join(place, name) }
          [*files, *runs.map(&:path)].filter_map { |path| one(path) }
        end
      end

      # A file that cannot be read is none of them.
      def one(path)
        facts = Media::Probe.call(path)
        Cut::Relink::Footage.new(path:, reel: facts.reel, start: facts.start && Cut::Timecode.parse(facts.start, facts.rate), frames: facts.frames, rate: facts.rate)
      rescue MediaError, ParameterError => e
        warn("mordant: #{e.message}")
      end
    end
  end
end
