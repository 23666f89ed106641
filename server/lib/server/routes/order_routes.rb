# frozen_string_literal: true

require "rubygems/package"

module Server
  # The Dispatch room.
  module OrderRoutes
    def self.registered(app)
      app.get "/api/cuts/:id/orders" do
        answer(Cut.fetch(params["id"]).orders.includes(:outputs).order(id: :desc).map(&:to_h))
      end

      app.post "/api/cuts/:id/orders" do
        cut = Cut.includes(:project).fetch(params["id"])
        body = body_json
        shots = body["shots"] && every(cut.shots.includes(clip: :media_root), ids(body, "shots"))
        status 201
        answer(Order.place(cut:, kinds: body["kinds"], shots:, template: body["template"]).reload.to_h)
      end

      app.post "/api/outputs/:id/cancel" do
        output = Output.fetch(params["id"])
        output.cancel
        answer(output.reload.to_h)
      end

      app.get "/api/outputs/:id/file" do
        output = Output.fetch(params["id"])
        halt 404, {error: "#{output.path} is not finished"}.to_json unless output.status == "done" && File.exist?(output.file)
        File.directory?(output.file) ? archive(output) : send_file(output.file, disposition: :attachment)
      end

      app.helpers do
        # The files of a sequence as one tar file, made while it is sent.
        def archive(output)
          name = File.basename(output.file)
          content_type "application/x-tar"
          headers "content-disposition" => "attachment; filename=\"#{name}.tar\""
          stream do |out|
            writer = Gem::Package::TarWriter.new(Chunks.new(out))
            Dir.children(output.file).sort.each do |file|
              data = File.binread(File.join(output.file, file))
              writer.add_file_simple("#{name}/#{file}", 0o644, data.bytesize) { |io| io.write(data) }
            end
            writer.close
          end
        end
      end
    end

    # A stream that can only be written to, as the tar writer wants it.
    class Chunks
      attr_reader :pos

      def initialize(out)
        @out = out
        @pos = 0
      end

      def write(data)
        @out << data
        @pos += data.bytesize
        data.bytesize
      end
    end
  end
end
